import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, toNumber, watchErrors } from '../support/page';

/** Nothing out of reach: by keyboard alone, few keys, from anywhere; and nothing that one can't take along. */
const SIFT = '/larkfell-web/sift?returns=none';

const terms = (page: Page) => page.getByRole('grid', { name: 'Search terms' });
const rowInHand = (page: Page) => terms(page).locator('[role=row][aria-selected=true]');
const trayCount = async (page: Page) => toNumber(await page.getByTestId('tray-count').textContent());

/** Opens Sift, once its first row can be decided about. */
async function openSift(page: Page): Promise<void> {
  await page.goto(SIFT);
  await expect(rowInHand(page)).toBeVisible();
  await expect(page.locator('[data-weighed]')).toBeVisible();
}

test('twenty terms are stopped with at most three keys each, the table having the focus from the start', async ({
  page,
}) => {
  await openSift(page);
  await expect(terms(page)).toBeFocused();
  const before = await trayCount(page);
  const termInHand = () => rowInHand(page).locator('[data-raw]').getAttribute('data-raw');
  let keys = 0;
  const press = async (key: string) => {
    keys += 1;
    await page.keyboard.press(key);
  };
  const placeInHand = async () =>
    (await page.getByRole('button', { name: /^Place: / }).allTextContents()).join();
  let [stopped, changes] = [0, 0];
  for (let tried = 0; stopped < 20 && tried < 80; tried++) {
    const [term, place] = [(await termInHand())!, await placeInHand()];
    await press('w');
    // It goes; or it ran elsewhere, too, and is stopped there by the next press; or it says in its row why it does not go.
    let became = 'waiting';
    await expect
      .poll(async () => {
        const refused = await rowInHand(page).getByRole('status').count();
        const isIn = (await trayCount(page)) > before + changes;
        became = refused > 0 ? 'refused' : !isIn ? 'waiting' : 'in the tray';
        return became;
      })
      .not.toBe('waiting');
    if (became === 'refused') await press('ArrowDown');
    else {
      changes += 1;
      // Only then the next press is about something else: another term, or another place of this one.
      await expect
        .poll(async () => {
          const now = await placeInHand();
          return (await termInHand()) !== term || (now !== '' && now !== place);
        })
        .toBe(true);
      await page.waitForLoadState('networkidle');
      if ((await termInHand()) !== term) stopped += 1;
    }
  }
  expect(stopped).toBe(20);
  expect(keys).toBeLessThanOrEqual(60);
  await expect.poll(() => trayCount(page)).toBe(before + changes);
  for (let i = 0; i < changes; i++) await page.keyboard.press('Control+z');
  await expect.poll(() => trayCount(page)).toBe(before);
});

test('the terms are reached with few keys from the top of the page, and again by Esc from anywhere', async ({
  page,
}) => {
  await openSift(page);
  await page.locator('body').evaluate((body) => {
    body.tabIndex = -1; // from the top of the page
    body.focus();
    body.removeAttribute('tabindex');
  });
  await page.keyboard.press('Tab');
  await expect(page.getByRole('button', { name: 'To the table' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(terms(page)).toBeFocused();
  await page.keyboard.press('f');
  await expect(page.getByLabel('Kind of term')).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(terms(page)).toBeFocused();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(terms(page)).toBeFocused();
});

test('Ctrl K goes to a list and comes back to Sift', async ({ page }) => {
  await openSift(page);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('recipes');
  await page.getByRole('option', { name: 'Recipes', exact: true }).waitFor();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/lists\?show=entries&list=/);
  await expect(page.getByRole('grid', { name: 'Entries of the list' })).toBeFocused();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('Sift');
  await page.keyboard.press('Enter');
  await expect(terms(page)).toBeFocused();
});

test('the table is saved as it is shown, with the columns that were chosen, and the choice is remembered', async ({
  page,
}) => {
  await openSift(page);
  const menu = page.getByRole('button', { name: 'Columns, and saving the table' });
  await page.keyboard.press('ArrowUp'); // to the heads
  await page.keyboard.press('Space');
  await page.getByRole('checkbox', { name: 'ad group', exact: true }).check();
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  const lines = (await readFile(await csv.path(), 'utf8')).trim().split('\r\n');
  expect(lines[0]).toMatch(/search term,served by,clicks,cost,.*ad group/);
  expect(lines.length - 1).toBe(toNumber(await page.getByTestId('count-remaining').textContent()));
  await page.reload();
  await expect(page.getByRole('columnheader', { name: /^ad group/ })).toBeVisible();
  await menu.click();
  const [workbook] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as XLSX' }).click(),
  ]);
  expect((await readFile(await workbook.path())).subarray(0, 2).toString()).toBe('PK');
});

test('a column is sized by its edge and moved by keys', async ({ page }) => {
  await openSift(page);
  const head = terms(page).getByRole('columnheader', { name: /^clicks/ });
  const { width } = (await head.boundingBox())!;
  for (let i = 0; i < 3; i++) await page.keyboard.press(i === 0 ? 'ArrowUp' : 'ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect.poll(async () => (await head.boundingBox())!.width).toBeGreaterThan(width + 6);
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Columns as at first' }).click();
  await expect.poll(async () => (await head.boundingBox())!.width).toBeCloseTo(width, 0);
});

test('the panel folds to a spine that says what waits, and stays folded', async ({ page }) => {
  await openSift(page);
  const { width } = (await terms(page).boundingBox())!;
  await page.getByRole('button', { name: 'fold ›' }).click();
  const spine = page.getByRole('button', {
    name: /^Open In hand and the Tray: \d+ changes?, [\d.,]+ stopped/,
  });
  expect((await spine.boundingBox())!.width).toBeLessThanOrEqual(44);
  expect((await terms(page).boundingBox())!.width).toBeGreaterThan(width + 200);
  await page.reload();
  await spine.click();
  await expect(page.getByRole('region', { name: 'In hand' })).toBeVisible();
});

const SCREENS = [
  ...['sift', 'sift?show=plot', 'sift?show=pass', 'sift?panel=themes', 'intake', 'ledger', 'account'],
  ...['lists', 'lists?show=coverage', 'lists?show=entries', 'lists?show=could', 'lists?show=account'],
  ...['lists?show=elsewhere', 'gate?query=bee+hive+jobs'],
  ...['sift?beside=before', 'lists?beside=before', 'ledger?beside=before'],
];

test('at 1280 px every table shows its columns without scrolling sideways', async ({ page }) => {
  for (const path of [
    'sift',
    'lists',
    'lists?show=entries',
    'lists?show=account',
    'untangle',
    'promote',
    'ledger',
  ]) {
    await page.goto(`/larkfell-web/${path}`);
    await page.locator('.data-table').first().waitFor();
    await page.waitForLoadState('networkidle');
    const beyond = await page
      .locator('.data-table')
      .first()
      .evaluate((table) => table.scrollWidth - table.clientWidth);
    expect(beyond, path).toBeLessThanOrEqual(0);
  }
});

test('every screen is accessible in light and dark, and within its bounds at 1024 px', async ({ page }) => {
  test.setTimeout(420_000); // each screen is checked by all rules, twice
  await page.setViewportSize({ width: 1024, height: 768 });
  const errors = watchErrors(page);
  for (const path of SCREENS) {
    await page.goto(`/larkfell-web/${path}`);
    await page.getByRole('heading', { level: 1 }).waitFor();
    await page.waitForLoadState('networkidle');
    for (const theme of ['light', 'dark']) {
      await page.evaluate((name) => (document.documentElement.dataset.theme = name), theme);
      await expectAccessible(page);
    }
    const beyond = await page.evaluate(
      () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
    );
    expect(beyond, path).toBeLessThanOrEqual(0);
  }
  expect(errors).toEqual([]);
});
