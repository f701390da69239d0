import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, watchErrors } from '../support/page';
import { choose, removeRules, sayYesAndTakeBack, switchOn } from '../support/rules-page';

/** A rule on words at fault, by keyboard alone: tried week by week, switched on, and a word stopped as a phrase. */
test.describe.configure({ mode: 'serial' });
const ACCOUNT = '/larkfell-web';

let page: Page;
let errors: string[];
const inHand = () => page.getByRole('region', { name: 'In hand' });
const sentence = () => page.getByRole('group', { name: 'The rule' });
const findings = () => page.getByRole('grid', { name: 'Findings' });

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext()).newPage();
  errors = watchErrors(page);
  await page.goto(`${ACCOUNT}/rules?shown=rules&begin=`);
});
test.afterAll(async () => {
  await removeRules(page, ACCOUNT);
  expect(errors).toEqual([]);
  await page.context().close();
});

test('it is tried on the past, and names words', async () => {
  await choose(page, 'What it is about', 'word at fault');
  await choose(page, 'Add a condition', 'how surely it is at fault');
  await expect(sentence()).toContainText('is so with');
  await choose(page, 'What is proposed', 'stop it in the account');
  await expect(inHand()).toContainText(/Would have stopped \d+ words? in \d+ days/);
  await expectAccessible(page);
});

test('it is switched on, and a yes puts a phrase in the tray, which is taken back', async () => {
  await switchOn(page, 'Words');
  await expect(findings().getByRole('row').nth(1)).toContainText('the whole account');
  await sayYesAndTakeBack(page, /Stopped as phrase in: the whole account/);
});
