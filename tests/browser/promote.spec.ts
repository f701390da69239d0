import { expect, test, type Page } from '@playwright/test';
import { choose, expectAccessible, watchErrors } from '../support/page';

/** Promote, by keyboard alone: a term gets its seats, many at once do, seats are chosen, and a keyword that misses is changed. */
const ACCOUNT = '/larkfell-web';
const grid = (page: Page, name = 'Terms to promote') => page.getByRole('grid', { name });
const inHand = (page: Page) => page.getByRole('region', { name: 'In hand' });
const counted = async (page: Page, name: RegExp) =>
  Number((await page.getByRole('tab', { name }).textContent())!.replace(/\D/g, ''));

test('a term is promoted: its plan is changed, put in the tray and taken back', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto(`${ACCOUNT}/promote`);
  const row = grid(page)
    .getByRole('row', { name: /3 \+ \d/ })
    .first();
  await expect(row).toBeVisible();
  // The keys alone lead to the first term whose group has all seats.
  await grid(page).focus();
  const makes = inHand(page).getByText(/^Makes 3 keywords/);
  for (let i = 0; i < 20 && !(await makes.isVisible()); i++) {
    await page.keyboard.press('ArrowDown');
    await expect(inHand(page).getByText(/^Makes \d/)).toBeVisible();
  }
  await expect(makes).toBeVisible();
  for (const match of ['exact', 'phrase', 'broad'])
    await expect(inHand(page).getByRole('region', { name: `${match} seat` })).toBeVisible();
  await expect(inHand(page)).toContainText(/A click cost \d/);
  await expectAccessible(page);
  await page.keyboard.press('3');
  await expect(inHand(page).getByRole('checkbox', { name: /broad keyword/ })).not.toBeChecked();
  await expect(inHand(page)).toContainText(/Makes 2 keywords/);

  const before = await counted(page, /Terms to promote/);
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('tray-count')).toContainText(/change/);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('tray-count')).toHaveText('empty');
  await expect.poll(() => counted(page, /Terms to promote/)).toBe(before);

  await grid(page).focus();
  await page.keyboard.press('x');
  const left = page.getByRole('radio', { name: /^not for this/ });
  await expect(left).toHaveText('not for this 1');
  await page.keyboard.press('Control+z');
  await expect(left).toHaveText('not for this 0');
  expect(errors).toEqual([]);
});

test('marked terms are promoted together; filters narrow the list', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto(`${ACCOUNT}/promote`);
  await choose(page.getByRole('combobox', { name: 'Group' }), 'Health · Varroa');
  await expect(grid(page).getByRole('row', { name: /Hives/ })).toHaveCount(0);
  await choose(page.getByRole('combobox', { name: 'Against the target' }), 'within the target');
  await expect(page).toHaveURL(/reach=within/);
  const before = await counted(page, /Terms to promote/);
  await grid(page).focus();
  await page.keyboard.press('Control+a');
  await expect(inHand(page).getByText(/^Makes \d+ keywords and \d+ negatives/)).toBeVisible();
  await page.keyboard.press('6');
  await page.keyboard.press('Enter');
  await expect.poll(() => counted(page, /Terms to promote/)).toBeLessThan(before);
  await page.keyboard.press('Control+z');
  await expect.poll(() => counted(page, /Terms to promote/)).toBe(before);
  expect(errors).toEqual([]);
});

test('seats are made in the tray, and taken back', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto(`${ACCOUNT}/promote?shown=seats`);
  await expect(grid(page, 'Seats').getByRole('row', { name: /Tools · Smokers/ })).toBeVisible();
  await grid(page, 'Seats')
    .getByRole('row', { name: /Tools · Smokers/ })
    .click();
  await expectAccessible(page);
  await inHand(page).getByRole('button', { name: 'Put the seats in the tray' }).click();
  const row = grid(page, 'Seats').getByRole('row', { name: /Tools · Smokers exact/ });
  await expect(row).toContainText('in the tray');
  await page.keyboard.press('Control+z');
  await expect(row).toHaveCount(0);
  expect(errors).toEqual([]);
});

test('an exact keyword that misses gets a lower bid, a pause, or more clicks', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto(`${ACCOUNT}/promote?shown=keywords&sure=50`);
  const keywords = grid(page, 'Own keywords that miss');
  await expect(keywords.getByRole('row').nth(1)).toBeVisible();
  await expect(inHand(page)).toContainText('On all days:');
  await expectAccessible(page);
  await keywords.focus();
  await page.keyboard.press('p');
  await expect(page.getByTestId('tray-count')).toContainText('1 change');
  await expect(inHand(page)).toContainText('In the tray: Pause');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('tray-count')).toHaveText('empty');
  const before = await counted(page, /Own keywords/);
  await keywords.focus();
  await page.keyboard.press('l');
  await expect.poll(() => counted(page, /Own keywords/)).toBe(before - 1);
  await page.keyboard.press('Control+z');
  await expect.poll(() => counted(page, /Own keywords/)).toBe(before);
  expect(errors).toEqual([]);
});

test('at 1024 px nothing lies outside, and it is accessible in the dark', async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.emulateMedia({ colorScheme: 'dark' });
  for (const shown of ['terms', 'keywords', 'seats']) {
    await page.goto(`${ACCOUNT}/promote?shown=${shown}`);
    await page.locator('.data-table').first().waitFor();
    const wide = () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(await wide()).toBeLessThanOrEqual(0);
    await expectAccessible(page);
  }
});
