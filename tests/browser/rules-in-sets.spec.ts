import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, watchErrors } from '../support/page';

/** Rules that differ, a set that says which of them wins, and a rule on keywords; by keyboard alone. */
test.describe.configure({ mode: 'serial' });
const ACCOUNT = '/larkfell-web';
const RULES = `${ACCOUNT}/rules`;

let page: Page;
let errors: string[];
const grid = (name: string) => page.getByRole('grid', { name });
const inHand = () => page.getByRole('region', { name: 'In hand' });
const order = () => inHand().getByRole('list', { name: 'Rules in their order' });
const differing = () => grid('Findings').getByText(/^two rules differ/);

async function ask(method: 'post' | 'put', path: string, data: object) {
  const headers = { origin: new URL(page.url()).origin };
  const answer = await page.request[method](`/api${ACCOUNT}/${path}`, { headers, data });
  expect(answer.status()).toBe(200);
}
async function press(name: string | RegExp) {
  const button = page.getByRole('button', { name });
  await expect(button).toBeEnabled();
  await button.focus();
  await page.keyboard.press('Enter');
}
/** Picks by its first letters, as cmdk finds it. */
async function pick(trigger: string, option: string) {
  await press(trigger);
  await page.keyboard.type(option);
  await expect(page.getByRole('option', { name: option })).toBeVisible();
  await page.keyboard.press('Enter');
}
/** Chooses a word of the sentence by its letters. */
async function choose(label: string, option: string) {
  const word = page.getByRole('combobox', { name: label });
  await word.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option', { name: option, exact: true })).toBeVisible();
  await page.keyboard.type(option.slice(0, 4));
  await page.keyboard.press('Enter');
  await expect(word).toContainText(option);
}

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext()).newPage();
  errors = watchErrors(page);
  await page.goto(`${RULES}?shown=sets`);
  const rule = (then: object) => ({
    when: [
      { of: 'clicks', is: 'at least', value: 30 },
      { of: 'conversions', is: 'at most', value: 0 },
    ],
    ...{ lookBack: { days: 60, lagDays: 2 }, where: { is: 'everywhere', campaigns: [] } },
    ...{ then, how: { is: 'by approval' }, often: 'after each report' },
  });
  await ask('post', 'rules', { name: 'Stops them', rule: rule({ do: 'stop', at: 'ad group' }), state: 'on' });
  await ask('post', 'rules', { name: 'Waits', rule: rule({ do: 'set aside', moreClicks: 20 }), state: 'on' });
});
test.afterAll(async () => {
  const { rules } = (await (await page.request.get(`/api${RULES}`)).json()) as { rules: { id: number }[] };
  await ask('put', 'rules/sets', { sets: [] });
  await ask('put', 'rules/states', { rules: rules.map(({ id }) => ({ id, state: 'removed' })) });
  await page.context().close();
});

test('two rules that differ say so at what both find', async () => {
  await page.goto(`${RULES}?shown=findings`);
  await expect(differing().first()).toBeVisible();
  await grid('Findings').focus();
  await expect(inHand()).toContainText('found it, too, and wants the opposite');
  await expectAccessible(page);
});

test('a set gets a name, rules and an order; the first wins, and nothing differs any more', async () => {
  await page.goto(`${RULES}?shown=sets`);
  await press('New set');
  const name = page.getByRole('textbox', { name: /^Name/ });
  await expect(name).toBeFocused();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Swarm season');
  await page.keyboard.press('Enter');
  await expect(grid('Sets of rules').getByRole('row', { name: /Swarm season/ })).toBeVisible();
  await pick('Add a rule', 'Stops them');
  await expect(order().getByRole('listitem')).toHaveCount(1);
  await pick('Add a rule', 'Waits');
  await expect(order().getByRole('listitem')).toHaveText([/^1Stops them/, /^2Waits/]);
  await press('Before: Waits');
  await expect(order().getByRole('listitem')).toHaveText([/^1Waits/, /^2Stops them/]);
  await expectAccessible(page);
  await page.goto(`${RULES}?shown=findings`);
  const rows = grid('Findings').getByRole('row', { name: /set aside until 20 more clicks/ });
  await expect(rows.first()).toBeVisible();
  await expect(differing()).toHaveCount(0);
});

test('a yes sets a term aside at once; the undo brings the finding back', async () => {
  const tab = page.getByRole('tab', { name: /^Findings/ });
  const before = await tab.textContent();
  await grid('Findings').focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('Set 1 term aside until each has 20 more clicks')).toBeVisible();
  await expect(tab).not.toHaveText(before!);
  await page.keyboard.press('Control+z');
  await expect(tab).toHaveText(before!);
});

test('a rule on keywords lowers a bid to what pays, through the tray', async () => {
  await press('All rules off');
  await expect(page.getByText(/rules, 0 on/)).toBeVisible();
  await page.goto(`${RULES}?shown=rules&begin=`);
  await expect(page.getByRole('table', { name: 'Neighbouring thresholds' })).toBeVisible();
  await choose('What it is about', 'keyword');
  await choose('What is proposed', 'lower its bid to what pays');
  await expect(inHand()).toContainText(/Would have changed \d+ keywords?/);
  await expectAccessible(page);
  await page.getByRole('textbox', { name: 'Name' }).focus();
  await page.keyboard.type('Too dear');
  await press('Switch it on');
  await expect(page).toHaveURL(/rule=\d/);
  await page.goto(`${RULES}?shown=findings`);
  const row = grid('Findings').getByRole('row', { name: /Too dear.*bid [\d.]+/ });
  await expect(row.first()).toBeVisible();
  await expect(grid('Findings')).toBeFocused();
  await expect(inHand()).toContainText(/It would be bid [\d.,]+/);
  await page.keyboard.press('Enter');
  await expect(
    page
      .getByRole('region', { name: 'Tray' })
      .getByText(/^Bid [\d.,]+/)
      .first(),
  ).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('tray-count')).toHaveText('empty');
});

test('at 1024 px nothing lies outside', async () => {
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.goto(`${RULES}?shown=sets`);
  await expect(order()).toBeVisible();
  await expectAccessible(page);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1024);
  expect(errors).toEqual([]);
});
