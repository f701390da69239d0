import { expect, test } from '@playwright/test';

/** The narrowest screen: what a row is about can be read, and nothing lies outside the screen. */
test.use({ viewport: { width: 1024, height: 768 } });

const FIRST = [
  ['Sift', 'sift', '#term-0 .table-first'],
  ['Lists', 'lists', '#lists .table-first b'],
  ['Entries', 'lists?show=entries', '#entry-0 .table-first'],
] as const;

for (const [name, path, cell] of FIRST) {
  test(`${name}: the first row says what it is about`, async ({ page }) => {
    await page.goto(`/larkfell-web/${path}`);
    const first = page.locator(cell).first();
    await expect(first).toHaveText(/\w{3}/);
    const { width } = (await first.boundingBox())!;
    expect(width).toBeGreaterThan(name === 'Sift' ? 240 : 40);
    const outside = await page.evaluate(() =>
      [...document.querySelectorAll('main button, main [role=columnheader]')]
        .filter((one) => !one.closest('[data-overflows]')) // scrolled sideways
        .filter(
          (one) => one.getBoundingClientRect().right > one.closest('main')!.getBoundingClientRect().right,
        )
        .map((one) => one.textContent),
    );
    expect(outside).toEqual([]);
  });
}

test('Sift: a few presses of Tab reach the terms, and arrows go through the runs of words', async ({
  page,
}) => {
  await page.goto('/larkfell-web/sift');
  await expect(page.locator('#term-0')).toHaveText(/\w{3}/);
  const runs = page.getByRole('group', { name: 'Runs of words' });
  await runs.getByRole('button').first().focus();
  for (let i = 0; i < 30; i++) await page.keyboard.press('ArrowDown');
  await expect(runs.locator('[data-ngram="30"]')).toBeFocused();
  await page.keyboard.press('Home');
  await expect(runs.locator('[data-ngram="0"]')).toBeFocused();
  const terms = page.getByRole('grid', { name: 'Search terms' });
  for (let i = 0; i < 15 && !(await terms.evaluate((grid) => grid === document.activeElement)); i++)
    await page.keyboard.press('Tab');
  await expect(terms).toBeFocused();
});
