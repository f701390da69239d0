import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, watchErrors } from '../support/page';

/** A rule on words at fault, by keyboard alone: tried week by week, switched on, and a word stopped as a phrase. */
test.describe.configure({ mode: 'serial' });
const ACCOUNT = '/larkfell-web';

let page: Page;
let errors: string[];
const inHand = () => page.getByRole('region', { name: 'In hand' });
const sentence = () => page.getByRole('group', { name: 'The rule' });
const findings = () => page.getByRole('grid', { name: 'Findings' });

/** Chooses a word of the sentence by its letters. */
async function choose(label: string, option: string) {
  const word = page.getByRole('combobox', { name: label });
  await word.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option', { name: option, exact: true })).toBeVisible();
  await page.keyboard.type(option.slice(0, 8));
  await page.keyboard.press('Enter');
}

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext()).newPage();
  errors = watchErrors(page);
  await page.goto(`${ACCOUNT}/rules?shown=rules&begin=`);
});
test.afterAll(async () => {
  const headers = { origin: new URL(page.url()).origin };
  const { rules } = (await (await page.request.get(`/api${ACCOUNT}/rules`)).json()) as {
    rules: { id: number }[];
  };
  const removed = rules.map(({ id }) => ({ id, state: 'removed' }));
  if (removed.length > 0)
    await page.request.put(`/api${ACCOUNT}/rules/states`, { headers, data: { rules: removed } });
  expect(errors).toEqual([]);
  await page.context().close();
});

test('it is tried on the past, and names words', async () => {
  await choose('What it is about', 'word at fault');
  await choose('Add a condition', 'how surely it is at fault');
  await expect(sentence()).toContainText('is so with');
  await choose('What is proposed', 'stop it in the account');
  await expect(inHand()).toContainText(/Would have stopped \d+ words? in \d+ days/);
  await expectAccessible(page);
});

test('it is switched on, and a yes puts a phrase in the tray, which is taken back', async () => {
  await page.getByRole('textbox', { name: 'Name' }).focus();
  await page.keyboard.type('Words');
  await inHand().getByRole('button', { name: 'Switch it on' }).focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/rule=\d/);
  await page.getByRole('tab', { name: /Findings/ }).focus();
  await page.keyboard.press('Enter');
  await expect(findings().getByRole('row').nth(1)).toContainText('the whole account');
  await findings().focus();
  await expect(inHand()).toContainText('Stopped as phrase in: the whole account');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('tray-count')).toContainText(/change/);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('tray-count')).toHaveText('empty');
});
