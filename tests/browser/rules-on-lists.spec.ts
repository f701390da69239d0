import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, watchErrors } from '../support/page';
import { choose, removeRules, sayYesAndTakeBack, switchOn } from '../support/rules-page';

/** Rules on lists and on campaigns, by keyboard alone: tried, switched on, a list hung and a budget raised. */
test.describe.configure({ mode: 'serial' });
const ACCOUNT = '/larkfell-web';
/** At half of the demo's traffic, Health · Varroa spends more than that of its budget, and sells at less than its target. */
const SHARE = '40';

let page: Page;
let errors: string[];
const inHand = () => page.getByRole('region', { name: 'In hand' });
const findings = () => page.getByRole('grid', { name: 'Findings' });

/** Types a figure of the sentence. */
async function type(label: RegExp, value: string) {
  await page.getByRole('textbox', { name: label }).focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.type(value);
  await page.keyboard.press('Enter');
}

/** Goes down until the finding in hand says so. */
async function goDownTo(says: RegExp) {
  await findings().focus();
  await expect(async () => {
    if (!says.test((await inHand().textContent()) ?? '')) await page.keyboard.press('ArrowDown');
    await expect(inHand()).toContainText(says, { timeout: 1_000 });
  }).toPass();
}

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext()).newPage();
  errors = watchErrors(page);
});
test.beforeEach(async () => {
  await page.goto(`${ACCOUNT}/rules?shown=rules&begin=`);
});
test.afterEach(() => removeRules(page, ACCOUNT));
test.afterAll(async () => {
  expect(errors).toEqual([]);
  await page.context().close();
});

test('a list is tried where it does not hang, and a yes hangs it there', async () => {
  await choose(page, 'What it is about', 'list where it does not hang');
  await type(/^How many clicks/, '3');
  await expect(inHand()).toContainText(/Would have hung \d+ lists? in \d+ days and saved/);
  await expectAccessible(page);
  await switchOn(page, 'Hang');
  await expect(findings().getByRole('row').nth(1)).toContainText('hung on');
  await sayYesAndTakeBack(page, /It would be hung on/);
});

test('a campaign that spends its budget while it pays is found, and a yes raises it', async () => {
  await choose(page, 'What it is about', 'campaign');
  await type(/^Of its budget/, SHARE);
  await expect(inHand()).toContainText(/Would have changed \d campaigns? in/);
  await expectAccessible(page);
  await switchOn(page, 'Raise');
  await expect(findings().getByRole('row', { name: /Health · Varroa/ })).toBeVisible();
  await goDownTo(/It would be a budget of 26\.40 a day/);
  await sayYesAndTakeBack(page, /It would be a budget of 26\.40 a day, was 22\.00/);
});
