import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, watchErrors } from '../support/page';

/** A rule by approval, by keyboard alone: begun from a ready one, tried, switched on; what it finds is decided. */
test.describe.configure({ mode: 'serial' });
const ACCOUNT = '/larkfell-web';
const NAME = `Fifteen ${Date.now() % 100_000}`;

let page: Page;
let errors: string[];
const grid = (name: string) => page.getByRole('grid', { name });
const inHand = () => page.getByRole('region', { name: 'In hand' });
const figure = (name: string) => page.getByRole('textbox', { name });
const thresholds = () => page.getByRole('table', { name: 'Neighbouring thresholds' });
const count = async (name: RegExp) =>
  Number((await page.getByRole('tab', { name }).textContent())!.replace(/\D/g, ''));

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext()).newPage();
  errors = watchErrors(page);
});
test.afterAll(async () => {
  const headers = { origin: new URL(page.url()).origin };
  const { rules } = (await (await page.request.get(`/api${ACCOUNT}/rules`)).json()) as {
    rules: { id: number }[];
  };
  if (rules.length > 0)
    await page.request.put(`/api${ACCOUNT}/rules/states`, {
      headers,
      data: { rules: rules.map(({ id }) => ({ id, state: 'removed' })) },
    });
  await page.context().close();
});

test('a ready rule is tried on the past, and another threshold beside it', async () => {
  await page.goto(`${ACCOUNT}/rules?shown=ready`);
  const row = grid('Ready rules').getByRole('row', { name: /Enough clicks, no conversion/ });
  await expect(row).toBeVisible();
  await expectAccessible(page);
  await expect(grid('Ready rules')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(thresholds().getByRole('rowheader')).toHaveCount(3);
  await expect(inHand()).toContainText(/Would have stopped \d+ terms? in \d+ days/);
  await figure('How many clicks').focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('15');
  await page.keyboard.press('Enter');
  await expect(thresholds().getByRole('rowheader', { name: '15 clicks or more' })).toBeVisible();
  const saved = await thresholds().getByRole('row').nth(2).textContent();
  await thresholds().getByRole('button', { name: '10 clicks or more' }).focus();
  await page.keyboard.press('Enter');
  await expect(thresholds().getByRole('rowheader', { name: '7 clicks or more' })).toBeVisible();
  await expect.poll(() => thresholds().getByRole('row').nth(2).textContent()).not.toBe(saved);
  await page.getByText('As a table').focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('group', { name: 'The trial by day' }).getByRole('row')).not.toHaveCount(1);
  await expectAccessible(page);
});

test('it is switched on under a name, and finds what meets it', async () => {
  await figure('Name').focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.type(NAME);
  await inHand().getByRole('button', { name: 'Switch it on' }).focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/rule=\d/);
  await expect(inHand()).toContainText(NAME);
  await page.getByRole('tab', { name: /Rules/ }).focus();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('tab', { name: /Findings/ })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(grid('Findings').getByRole('row').nth(1)).toContainText(NAME);
  await expectAccessible(page);
});

test('a finding gets a yes, a no for a reason, or waits; each is taken back', async () => {
  const before = await count(/Findings/);
  await grid('Findings').focus();
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('tray-count')).toContainText(/change/);
  await expect.poll(() => count(/Findings/)).toBe(before - 1);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('tray-count')).toHaveText('empty');
  await expect.poll(() => count(/Findings/)).toBe(before);
  await grid('Findings').focus();
  await page.keyboard.press('x');
  await page.keyboard.type('a maker that we sell');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('radio', { name: /^refused/ })).toHaveText('refused 1');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('radio', { name: /^refused/ })).toHaveText('refused 0');
  await grid('Findings').focus();
  await page.keyboard.press('l');
  await expect(page.getByRole('radio', { name: /^later/ })).toHaveText('later 1');
  await page.keyboard.press('Control+z');
  await expect.poll(() => count(/Findings/)).toBe(before);
});

test('all rules are off with one press, and on again by the undo', async () => {
  await page.getByRole('button', { name: 'All rules off' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('No rule is switched on.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(grid('Findings').getByRole('row').nth(1)).toContainText(NAME);
});

test('at 1024 px nothing lies outside, and it is accessible in the dark', async () => {
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.emulateMedia({ colorScheme: 'dark' });
  for (const shown of ['shown=findings', 'shown=rules', 'shown=ready', 'shown=rules&begin=']) {
    await page.goto(`${ACCOUNT}/rules?${shown}`);
    await expect(page.getByRole('heading', { name: 'In hand' })).toBeVisible();
    await expectAccessible(page);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1024);
  }
  expect(errors).toEqual([]);
});
