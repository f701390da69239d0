import { expect, test } from '@playwright/test';
import { toNumber, watchErrors } from '../support/page';

/** The demo at eight times its size has started; it is worked with as any other. */
test('Sift opens over both accounts, and a word is weighed', async ({ page }) => {
  const errors = watchErrors(page);
  const grid = page.getByRole('grid', { name: 'Search terms' });
  const rowInHand = grid.locator('[role=row][aria-selected=true]');
  const remaining = async () => toNumber(await page.getByTestId('count-remaining').textContent());
  for (const account of ['larkfell-market', 'larkfell-web']) {
    await page.goto(`/${account}/sift`);
    await expect(rowInHand).toBeVisible();
    await expect.poll(remaining).toBeGreaterThan(8_000);
  }
  await grid.focus();
  await page.keyboard.press('1');
  await expect(page.getByTestId('consequence')).toContainText('Stops');
  expect(errors).toEqual([]);
});
