import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, watchErrors } from '../support/page';

/** A rule acts by itself; weeks pass; what it promised stands beside what came. By keyboard alone. */
test.describe.configure({ mode: 'serial' });

const RULES = '/larkfell-web/rules';
const NAME = 'Surely misses its target';
let page: Page;
let errors: string[];
/** terms that the rule has stopped so far */
let did: number;

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));
test.afterAll(() => page.context().close());

const grid = (name: string) => page.getByRole('grid', { name });
const inHand = () => page.getByRole('region', { name: 'In hand' });
const figure = (name: RegExp) => page.getByRole('textbox', { name });
const rowOfRule = () => grid('Rules').getByRole('row', { name: new RegExp(NAME) });
const acts = () =>
  grid('What rules did')
    .getByRole('row')
    .filter({ hasText: /in force|on its way/ });

async function type(name: RegExp, text: string) {
  await figure(name).focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}
async function press(name: string | RegExp) {
  const button = page.getByRole('button', { name });
  await expect(button).toBeEnabled();
  await button.focus();
  await page.keyboard.press('Enter');
}
async function letAWeekPass() {
  const clock = page.getByText(/^Stand-in platform:/);
  const before = await clock.textContent();
  await press('+ 1 week');
  await expect(clock).not.toHaveText(before!);
  await press('Fetch report');
  await expect(page.getByText(/Report loaded:/)).toBeVisible({ timeout: 60_000 });
}
/** Brings the rule's sentence to the screen. */
async function openRule() {
  await page.goto(`${RULES}?shown=rules`);
  await expect(rowOfRule()).toBeVisible();
  await expect(grid('Rules')).toBeFocused();
  for (let row = 0; row < 5 && (await rowOfRule().getAttribute('aria-selected')) !== 'true'; row++)
    await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('group', { name: 'The rule' })).toBeVisible();
}

test('a rule may act by itself, by two changes a day', async () => {
  await openRule();
  await page.getByRole('combobox', { name: 'After a yes or by itself' }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('option', { name: 'by itself' })).toBeFocused();
  await page.keyboard.press('Enter');
  await type(/^Changes a day at most/, '2');
  await type(/^Cost of what it is about a day at most/, '100000');
  await type(/^Least share of its promise/, '0');
  await expectAccessible(page);
  await page.setViewportSize({ width: 1024, height: 768 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1024);
  await page.setViewportSize({ width: 1280, height: 800 });
  await press(/^Keep as version/);
  await page.goto(`${RULES}?shown=did`);
  await expect(acts().filter({ hasText: 'in force' }).first()).toBeVisible();
  did = await acts().count();
  expect(did).toBeLessThanOrEqual(2);
  await expectAccessible(page);
});

test('the Ledger says that the rule did it', async () => {
  await grid('What rules did').focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/ledger\?entry=/);
  await expect(grid('Entries of the ledger')).toContainText(`the rule “${NAME}”`);
});

test('weeks later it has done more, and what each saved stands beside what was promised', async () => {
  await letAWeekPass();
  await letAWeekPass();
  await page.goto(`${RULES}?shown=did`);
  await expect.poll(() => acts().count()).toBeGreaterThan(did);
  await expect(grid('What rules did')).toBeFocused();
  await page.keyboard.press('End');
  await expect(inHand()).toContainText(/It saved −?[\d,.]+ in \d+ days; −?[\d,.]+ was promised/);
  await expect(inHand()).toContainText(/Since it was switched on, the rule acted \d+ times?/);
});

test('all rules are off with one press, and none does anything any more', async () => {
  const before = await acts().count();
  await press('All rules off');
  await expect(page.getByText(/rules, 0 on/)).toBeVisible();
  await letAWeekPass();
  await page.goto(`${RULES}?shown=did`);
  await expect(acts()).toHaveCount(before);
});
