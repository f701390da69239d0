import { expect, test, type Page } from '@playwright/test';
import { choose, expectAccessible, watchErrors } from '../support/page';

/** Untangle, by keyboard alone: a journey for each kind of knot. */
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
  const left = page.getByRole('radio', { name: /^left/ });
  await expect(left).toHaveText('left 1');
  await expect(grid(page)).toBeFocused();
  await left.click();
  await expect(inHand(page)).toContainText('Sold out until spring');
  await grid(page).focus();
  await page.keyboard.press('l');
  await expect(left).toHaveText('left 0');
  await page.goto(`${ACCOUNT}/ledger`);
  await expect(page.getByText(/^Leave “/).first()).toBeVisible();
  expect(errors).toEqual([]);
});

test('what is needless goes together, and comes back', async ({ page }) => {
  await page.goto(`${ACCOUNT}/untangle?shown=needless`);
  await expect(
    grid(page, 'Needless')
      .getByRole('row', { name: /song lyrics/ })
      .first(),
  ).toBeVisible();
  await expect(page.getByText(/no gate answers otherwise/)).toBeVisible();
  const before = await counted(page, /Needless/);
  await page
    .getByRole('button', { name: /^Remove/ })
    .first()
    .click();
  await expect.poll(() => counted(page, /Needless/)).toBeLessThan(before);
  await page.keyboard.press('Control+z');
  await expect.poll(() => counted(page, /Needless/)).toBe(before);
});

test('a misspelt negative is put right, and is wrong again after the undo', async ({ page }) => {
  await page.goto(`${ACCOUNT}/untangle?shown=misspelt`);
  await expect(grid(page, 'Misspelt').getByRole('row', { name: /haloween/ })).toBeVisible();
  await expect(inHand(page)).toContainText('halloween');
  await expectAccessible(page);
  await grid(page, 'Misspelt').focus();
  await page.keyboard.press('Enter');
  await expect.poll(() => counted(page, /Misspelt/)).toBe(0);
  await page.keyboard.press('Control+z');
  await expect.poll(() => counted(page, /Misspelt/)).toBe(1);
});

test('keywords that stand twice: another one stays, the others are paused, a sheet reads back', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto(`${ACCOUNT}/untangle?shown=twice`);
  for (const planted of [/^Mark bee hive /, /^Mark hive bars /, /^Mark brood box /, /^Mark kids bee suit /])
    await expect(grid(page, 'Twice').getByRole('row', { name: planted }).first()).toBeVisible();
  await expect(inHand(page)).toContainText('Takes over');
  await expectAccessible(page);
  const before = await counted(page, /Twice/);
  await grid(page, 'Twice').focus();
  await page.keyboard.press('2');
  await expect(inHand(page)).toContainText('Suggested was');
  await page.keyboard.press('Enter');
  await expect.poll(() => counted(page, /Twice/)).toBe(before - 1);
  await expect(page.getByText(/1 more is ended by the tray/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect.poll(() => counted(page, /Twice/)).toBe(before);

  await grid(page, 'Twice').focus();
  await page.keyboard.press('l');
  await page.keyboard.type('One for each season');
  await page.keyboard.press('Enter');
  await expect.poll(() => counted(page, /Twice/)).toBe(before - 1);
  await page.keyboard.press('Control+z');
  await expect.poll(() => counted(page, /Twice/)).toBe(before);

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'XLSX', exact: true }).click(),
  ]);
  await page.getByLabel('Sheet of duplicates').setInputFiles(await download.path());
  await expect(page.getByRole('dialog')).toContainText(/to be paused or removed/);
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Put \d/ }).click();
  await expect.poll(() => counted(page, /Twice/)).toBeLessThan(before);
  await page.keyboard.press('Control+z');
  await expect.poll(() => counted(page, /Twice/)).toBe(before);
  expect(errors).toEqual([]);
});

test('a keyword report gives them their figures; which conversions count is set, and undone', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const report = [
    'Day,Campaign,Ad group,Keyword,Match type,Bid,Impression share,Quality rating,Impressions,Clicks,Cost,Conversions,Brochures asked for',
    '2026-11-18,Hives · Starter,Complete hives,bee hive,broad,0.90,45 %,7,900,60,30.00,2,5',
    '2026-11-18,Hives · Starter,Complete hives,bee hive,broad,0.90,450,7,900,60,30.00,2,5',
  ].join('\n');
  await page.goto(`${ACCOUNT}/intake`);
  await page
    .getByLabel('Report files')
    .setInputFiles({ name: 'keywords.csv', mimeType: 'text/csv', buffer: Buffer.from(report) });
  await expect(page.getByTestId('sum-clicks')).toHaveText('60');
  await expect(page.getByRole('cell', { name: /“450” is over the whole.*write 450 %/ })).toBeVisible();
  await choose(page.getByLabel('Brochures asked for is taken for'), 'other conversions');
  await expect(page.getByRole('cell', { name: 'Brochures asked for 5' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Load 1 row' }).click();
  await expect(page.getByText(/^Loaded: /)).toBeVisible();

  await page.goto(`${ACCOUNT}/untangle?shown=twice`);
  await expect(page.getByText(/By the keyword report/)).toBeVisible();
  const members = page.getByRole('region', { name: 'Who stays' });
  await expect(members.getByRole('columnheader', { name: 'quality' })).toBeVisible();

  await page.goto(`${ACCOUNT}/account`);
  await page.getByRole('checkbox', { name: 'Brochures asked for' }).check();
  await page.getByRole('button', { name: 'Set: Conversions of keywords' }).click();
  await expect(page.getByText(/^Conversions of keywords: Brochures asked for/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Set: Conversions of keywords' })).toBeHidden();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('checkbox', { name: 'Brochures asked for' })).not.toBeChecked();

  await page.goto(`${ACCOUNT}/intake`);
  await page.getByRole('button', { name: 'Take back keywords.csv' }).click();
  await expect(page.getByRole('row', { name: /keywords\.csv.*taken back/ })).toBeVisible();
  expect(errors).toEqual([]);
});

test('a term that several serve is left to one, and is served by several again after the undo', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto(`${ACCOUNT}/untangle?shown=several`);
  const name = 'Served by several';
  await expect(inHand(page)).toContainText('Is left to');
  await expectAccessible(page);
  const before = await counted(page, /Served by several/);
  await grid(page, name).focus();
  await page.keyboard.press('m');
  await expect(inHand(page)).toContainText(/negative/);
  await page.keyboard.press('m');
  await page.keyboard.press('Enter');
  await expect.poll(() => counted(page, /Served by several/)).toBe(before - 1);
  await page.keyboard.press('Control+z');
  await expect.poll(() => counted(page, /Served by several/)).toBe(before);
  expect(errors).toEqual([]);
});

test('fewer negatives stop the same: what goes and comes is named, put in the tray, and taken out again', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto(`${ACCOUNT}/untangle?shown=smaller`);
  await expect(page.getByRole('region', { name: 'What changes' })).toContainText(/go/);
  await expect(inHand(page)).toContainText('stop the same, and nothing that must stay open');
  await expectAccessible(page);
  const before = await counted(page, /Smaller sets/);
  await grid(page, 'Smaller sets').focus();
  await page.keyboard.press('Enter');
  await expect.poll(() => counted(page, /Smaller sets/)).toBe(before - 1);
  await page.keyboard.press('Control+z');
  await expect.poll(() => counted(page, /Smaller sets/)).toBe(before);
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
