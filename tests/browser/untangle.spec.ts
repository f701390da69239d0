import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, watchErrors } from '../support/page';

/** Untangle, by keyboard alone: a conflict is mended by what is proposed, another one is left. */
const ACCOUNT = '/larkfell-web';
const grid = (page: Page, name = 'Conflicts') => page.getByRole('grid', { name });
const inHand = (page: Page) => page.getByRole('region', { name: 'In hand' });
const counted = async (page: Page, name: RegExp) =>
  Number((await page.getByRole('tab', { name }).textContent())!.replace(/\D/g, ''));

test('planted conflicts are found; one is mended, taken back, left and taken up again', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto(`${ACCOUNT}/untangle`);
  await expect(
    grid(page)
      .getByRole('row', { name: /certificate/ })
      .first(),
  ).toBeVisible();
  for (const planted of [/hex/, /bee jacket/])
    await expect(grid(page).getByRole('row', { name: planted }).first()).toBeVisible();
  const mends = page.getByRole('region', { name: 'Mends' });
  await expect(mends.getByText('proposed')).toBeVisible();
  await expectAccessible(page);

  const before = await counted(page, /Conflicts/);
  await grid(page).focus();
  await page.keyboard.press('Enter');
  await expect.poll(() => counted(page, /Conflicts/)).toBeLessThan(before);
  await expect(page.getByTestId('tray-count')).toContainText(/change/);
  await page.keyboard.press('Control+z');
  await expect.poll(() => counted(page, /Conflicts/)).toBe(before);

  await grid(page).focus();
  await page.keyboard.press('l');
  await page.keyboard.type('Sold out until spring');
  await page.keyboard.press('Enter');
  await expect.poll(() => counted(page, /Left/)).toBe(1);
  await expect(grid(page)).toBeFocused();
  await page.getByRole('tab', { name: /Left/ }).click();
  await expect(inHand(page)).toContainText('Sold out until spring');
  await grid(page, 'Left').focus();
  await page.keyboard.press('l');
  await expect.poll(() => counted(page, /Left/)).toBe(0);
  await page.goto(`${ACCOUNT}/ledger`);
  await expect(page.getByText(/^Leave “/).first()).toBeVisible();
  expect(errors).toEqual([]);
});

test('at 1024 px nothing lies outside, and it is accessible in the dark', async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.goto(`${ACCOUNT}/untangle`);
  await expect(
    grid(page)
      .getByRole('row', { name: /certificate/ })
      .first(),
  ).toBeVisible();
  const wide = () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(await wide()).toBeLessThanOrEqual(0);
  await expectAccessible(page);
});
