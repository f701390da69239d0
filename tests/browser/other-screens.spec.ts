import { expect, test } from '@playwright/test';
import { expectAccessible, watchErrors } from '../support/page';

test('the marketplace account shows product codes as what they are', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/larkfell-market/sift?text=lk-');
  const row = page.getByRole('grid').locator('[role=row][aria-selected=true]');
  await expect(row).toContainText('product code');
  await expect(page.getByRole('region', { name: 'In hand' })).toContainText(
    'Keyword negatives never stop it',
  );
  await expect(page.getByRole('columnheader', { name: 'ACoS' })).toBeVisible();
  await expectAccessible(page);
  expect(errors).toEqual([]);
});

test('dark is as readable as light', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.goto('/larkfell-market/sift');
  await expect(page.getByRole('grid').locator('[role=row][aria-selected=true]')).toBeVisible();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await expectAccessible(page);
});

test('an account that is not there is said so', async ({ page }) => {
  const response = await page.goto('/nobody/sift');
  expect(response?.status()).toBe(404);
});

test('a request that is far too large is refused with its size', async ({ page }) => {
  await page.goto('/larkfell-web/research');
  const answer = await page.request.post('/api/larkfell-web/research', {
    headers: { origin: new URL(page.url()).origin },
    data: { name: 'x'.repeat(41_000_000) },
  });
  expect(answer.status()).toBe(413);
  expect(((await answer.json()) as { error: string }).error).toMatch(/41 MB, and at most 40/);
});

test('a write from a foreign page is refused', async ({ request }) => {
  const body = { data: { changes: [] }, headers: { origin: 'http://elsewhere.example' } };
  expect((await request.post('/api/larkfell-web/tray', body)).status()).toBe(403);
  expect((await request.post('/api/larkfell-web/tray', { data: { changes: [] } })).status()).toBe(403);
  expect((await request.get('/api/health', { headers: { host: 'elsewhere.example' } })).status()).toBe(403);
});
