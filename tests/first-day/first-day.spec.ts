import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { choose, expectAccessible, watchErrors } from '../support/page';

/** From an empty database to the first stop, in currencies of two, no and three decimal places, by CPA and by ACoS. */
test.describe.configure({ mode: 'serial' });

let page: Page;
let errors: string[];

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));
test.afterAll(() => page.context().close());

const grid = () => page.getByRole('grid', { name: 'Search terms' });
const tray = () => page.getByRole('region', { name: 'Tray' });
const rowInHand = () => grid().locator('[role=row][aria-selected=true]');

/** A report as a person makes it by hand: the newest two days lie within the lag. */
const report = (cost: (units: number) => string) =>
  [
    'Day,Campaign,Ad group,Keyword,Match type,Search term,Impressions,Clicks,Cost,Conversions,Conversion value',
    `2026-11-18,Hives,Starter,bee hive,broad,bee hive movie,90,30,${cost(1_500)},0,0`,
    `2026-11-18,Hives,Starter,bee hive,broad,bee hive kit,90,30,${cost(1_500)},4,${cost(20_000)}`,
    `2026-11-18,Hives,Starter,bee hive,broad,bee movie poster,40,12,${cost(600)},0,0`,
    `2026-11-20,Hives,Starter,bee hive,broad,quiet hive,4,1,${cost(50)},0,0`,
  ].join('\n');

const ACCOUNTS = [
  {
    ...{ name: 'Larkfell Euro', currency: 'EUR', steersBy: 'CPA', target: '18.00', slug: 'larkfell-euro' },
    cost: (units: number) => (units / 100).toFixed(2),
    ...{ shows: 'Steers by CPA 18.00 EUR', stops: '21.00' },
  },
  {
    ...{ name: 'Larkfell Yen', currency: 'jpy', steersBy: 'CPA', target: '1800', slug: 'larkfell-yen' },
    cost: String,
    ...{ shows: 'Steers by CPA 1,800 JPY', stops: '2,100' },
  },
  {
    ...{ name: 'Larkfell Dinar', currency: 'KWD', steersBy: 'ACoS', target: '24', slug: 'larkfell-dinar' },
    cost: (units: number) => (units / 1_000).toFixed(3),
    ...{ shows: 'Steers by ACoS 24 %', stops: '2.100' },
  },
] as const;

for (const [i, account] of ACCOUNTS.entries()) {
  const { name, currency, steersBy, target, slug, cost, shows, stops } = account;

  test(`${name}: an account is made`, async () => {
    if (i === 0) {
      await page.goto('/');
      await expect(page.getByRole('heading', { name: 'Add an account' })).toBeVisible();
      await expectAccessible(page);
      await page.getByLabel('Your name').fill('Ines Vale');
    } else {
      await page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name: 'Account' }).click();
      await page.getByRole('button', { name: 'Add an account…' }).click();
    }
    const form = page.getByRole('form', { name: 'Add an account' });
    await form.getByLabel('Name of the account').fill(name);
    await form.getByLabel('Currency').fill('XQZ');
    await choose(form.getByLabel('Steers by'), new RegExp(steersBy));
    await form.getByLabel(/^Target/).fill(target);
    await form.getByRole('button', { name: 'Add the account' }).click();
    // What is wrong is said, and what was typed stays.
    await expect(form.getByRole('alert')).toContainText('currency by its code of three letters');
    await form.getByLabel('Currency').fill(currency);
    await form.getByRole('button', { name: 'Add the account' }).click();
    await expect(page).toHaveURL(new RegExp(`/${slug}/intake$`));
    await expect(page.getByRole('banner')).toContainText(shows);
    await expect(page.getByRole('combobox', { name: 'You are' })).toContainText('Ines Vale');
  });

  test(`${name}: a report made by hand is brought in`, async () => {
    await page
      .getByLabel('Report files')
      .setInputFiles({ name: 'by-hand.csv', mimeType: 'text/csv', buffer: Buffer.from(report(cost)) });
    await expect(page.getByTestId('sum-cost')).toHaveText(
      `${currency.toUpperCase()} ${{ EUR: '36.50', JPY: '3,650', KWD: '3.650' }[currency.toUpperCase()]}`,
    );
    await page.getByRole('button', { name: 'Load 4 rows' }).click();
    await expect(page.getByText('Loaded: 4 new rows')).toBeVisible();
    await expectAccessible(page);
  });

  test(`${name}: a query is stopped by the word at fault`, async () => {
    await page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name: 'Sift' }).click();
    await expect(rowInHand()).toContainText('bee hive movie');
    await grid().focus();
    await page.keyboard.press('3');
    await expect(page.getByTestId('consequence')).toContainText('Stops 2 terms of these days');
    await expect(page.getByTestId('consequence')).toContainText('known only from a report');
    await page.keyboard.press('Enter');
    await expect(page.getByTestId('tray-count')).toHaveText('1 change, not handed over');
    await expect(page.getByTestId('tray-cost')).toHaveText(stops);
    await expect(tray()).toContainText('known only from a report');
    await expect(page.getByTestId('count-stopped')).toHaveText(/2/);
    await expectAccessible(page);
  });

  test(`${name}: the tray is handed over as a sheet, said to be done, and shown by a structure file`, async () => {
    await page.getByRole('button', { name: 'Hand the tray over…' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog).toContainText('given out as a sheet');
    await expectAccessible(page);
    await dialog.getByRole('button', { name: 'Hand 1 change over' }).click();
    const note = page.getByTestId('sent-note');
    await expect(note).toContainText('Handed over by Ines Vale');
    await expect(note).toContainText('Nothing of it counts as in force');
    const download = page.waitForEvent('download');
    await note.getByRole('link', { name: 'CSV' }).click();
    const sheet = readFileSync(await (await download).path(), 'utf8');
    expect(sheet).toContain('Add the negative,live,campaign,Hives,,,movie,phrase');
    await expect(page.getByTestId('count-already')).toHaveText(/0/);

    await note.getByRole('button', { name: 'It was carried out' }).click();
    await expect(note).toContainText('Said to be done');
    await expect(page.getByTestId('count-already')).toHaveText(/2/);
    await page.getByLabel('Gate check: would a query get through?').fill('bee hive movie');
    await page.keyboard.press('Enter');
    await expect(page.getByTestId('gate-answer')).toHaveText('Stopped everywhere');
    await expect(page.getByRole('region', { name: 'Answer' })).toContainText('said to be done');
    await expectAccessible(page);

    await page.goto(`/${slug}/intake`);
    const structure = 'Campaign,Keyword,Match type,Status\nHives,,,live\nHives,movie,negative phrase,live\n';
    await page
      .getByLabel('Report files')
      .setInputFiles({ name: 'structure.csv', mimeType: 'text/csv', buffer: Buffer.from(structure) });
    await page.getByRole('button', { name: 'Load 2 rows' }).click();
    await expect(page.getByText('Of 1 change that was said to be done, 1 is there.')).toBeVisible();
    await expect(note).toContainText('1 of 1 change shown by a structure file');
    await page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name: 'Ledger' }).click();
    await expect(page.getByRole('row', { name: /Stop “movie” \(phrase\) in campaign Hives/ })).toContainText(
      'there',
    );
    await expectAccessible(page);
  });
}

test('settings are set in place, stand in the ledger, and are undone there', async () => {
  await page.goto('/larkfell-euro/account');
  await expectAccessible(page);
  const target = page.getByLabel('Target', { exact: true });
  await target.fill('nineteen');
  await target.press('Enter');
  await expect(page.getByRole('form', { name: 'Steering' }).getByRole('alert')).toContainText(
    'such as 18.00 EUR',
  );
  await expect(target).toHaveValue('nineteen');
  await target.fill('19,5');
  await target.press('Enter');
  await expect(page.getByRole('banner')).toContainText('Steers by CPA 19.50 EUR');
  await expect(target).toHaveValue('19.50');
  await expect(target).toBeFocused();
  await page.getByLabel('A term is a product code when it matches').fill('quiet .*');
  await expect(page.getByTestId('codes')).toHaveText('Catches 1 of 4 terms: quiet hive');
  await page.keyboard.press('Escape');
  await page.getByLabel('Protect search terms').uncheck();
  await page.getByRole('button', { name: 'Set: Protection' }).click();
  await expect(page.getByText('Protect no term for what it brought').first()).toBeVisible();
  await expect(page.getByLabel('Protect search terms')).toBeFocused();
  await page.getByLabel('Add', { exact: true }).fill('Tobias Finch');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/From two people on everybody signs in/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name: 'Ledger' }).click();
  await page.getByRole('button', { name: 'Undo: Target CPA 19.50 EUR (before: 18.00 EUR)' }).click();
  await expect(page.getByRole('banner')).toContainText('Steers by CPA 18.00 EUR');
});

test('an account is added by the keyboard alone, or left', async () => {
  await page.goto('/larkfell-euro/account');
  await page.getByRole('button', { name: 'Add an account…' }).focus();
  await page.keyboard.press('Enter');
  const form = page.getByRole('form', { name: 'Add an account' });
  await expect(form.getByLabel('Name of the account')).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Add an account…' })).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.type('Larkfell Keys');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/larkfell-keys\/intake$/);
  await page.goto('/larkfell-keys/ledger');
  await page.getByRole('button', { name: 'Undo: Add the account Larkfell Keys' }).press('Enter');
  await page.goto('/larkfell-keys/account');
  await expect(page.getByText('This account is retired')).toBeVisible();
});

test('an account is retired and taken back; with none left the first screen offers it', async () => {
  await page.goto('/larkfell-euro/account');
  for (const { name } of ACCOUNTS) {
    await page.getByRole('button', { name: `Retire ${name}` }).click();
    await expect(page.getByRole('button', { name: `Take back ${name}` })).toBeVisible();
  }
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Retired accounts' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('listitem').filter({ hasText: 'Larkfell Yen' }).getByRole('button').click();
  await expect(page).toHaveURL(/\/larkfell-yen\/sift$/);
});
