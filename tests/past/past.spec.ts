import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, toNumber, watchErrors } from '../support/page';

/** On a demo with three months of work behind it: what it tells, what was changed by others, how it was, and the client's page. */
test.describe.configure({ mode: 'serial' });

const ACCOUNT = '/larkfell-web';
let page: Page;
let errors: string[];

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));
test.afterAll(() => page.context().close());

const grid = (name: string) => page.getByRole('grid', { name });
const trayCount = async () => toNumber(await page.getByTestId('tray-count').textContent());

test('Today tells what four trays brought', async () => {
  await page.goto(`${ACCOUNT}/today`);
  const saved = page.getByRole('region', { name: 'Saved so far' });
  await expect(saved.getByRole('row')).toHaveCount(5);
  expect(toNumber(await page.getByTestId('today-saved').textContent())).toBeGreaterThan(0);
});

test('the Ledger tells of three people, of what was refused, and of a stop that was regretted', async () => {
  await page.goto(`${ACCOUNT}/ledger?find=free`);
  const ledger = grid('Entries of the ledger');
  await expect(ledger.getByText(/^Let “free” \(phrase\) through again/)).toBeVisible();
  await expect(ledger.getByText(/Ilse Brandow/).first()).toBeVisible();
  await expect(ledger.getByText('Tobias Finch').first()).toBeVisible();
  await page.goto(`${ACCOUNT}/ledger?find=documentary`);
  await expect(
    ledger
      .getByText('refused', { exact: true })
      .or(ledger.getByText('there', { exact: true }))
      .first(),
  ).toBeVisible();
  await page.goto(`${ACCOUNT}/ledger?term=bee%20suit%20free%20delivery`);
  await expect(ledger.getByText(/“free”/).first()).toBeVisible();
  await page.getByRole('combobox', { name: 'Who did it' }).click();
  await page.getByRole('option', { name: 'Ilse Brandow' }).click();
  await expect(ledger.getByText(/“free”/)).toHaveCount(0);
  await expect(ledger.getByText(/^Note on/).first()).toBeVisible();
  await expectAccessible(page);
});

test('what others changed is taken over, singly', async () => {
  await page.goto(`${ACCOUNT}/lists?show=elsewhere`);
  const outside = page.getByRole('list', { name: 'Changed elsewhere, outside lists' });
  await expect(outside).toContainText('Ilka Brandt');
  await outside.getByRole('button', { name: 'Take over' }).click();
  await expect(outside).toHaveCount(0);
  const inLists = page.getByRole('list', { name: 'Changed elsewhere' });
  await inLists.getByRole('button', { name: 'Take over' }).first().click();
  await expect(inLists.getByRole('button', { name: 'Take over' })).toHaveCount(0);
  await page.reload();
  await expect(page.getByText(/Nobody has changed anything on the platform/)).toBeVisible();
});

test('the account as it was is held beside now, and a part of it is put back', async () => {
  await page.goto(`${ACCOUNT}/ledger`);
  await page.getByRole('link', { name: 'As it was' }).click();
  await expect(page.getByRole('heading', { name: 'As it was' })).toBeVisible();
  await page.getByLabel('Day', { exact: true }).fill('2026-10-25');
  const then = grid('What stood then');
  await expect(then.getByText('“free” (phrase)')).toBeVisible();
  await expect(then.getByText('gone since').first()).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('Elements that say this').fill('“free”');
  await expect(then.getByRole('row')).toHaveCount(2);
  await then.focus();
  const before = await trayCount();
  await page.keyboard.press('Enter'); // it stops protected terms, so it asks for a reason
  await page.getByLabel('Reason to force it').fill('it was right then');
  await page.keyboard.press('Enter');
  await expect.poll(trayCount).toBe(before + 1);
  await page.keyboard.press('Control+z');
  await expect.poll(trayCount).toBe(before);
});

test('the page for the client is of the days that are chosen, and a workbook of it can be saved', async () => {
  await page.goto(`${ACCOUNT}/today?days=60`);
  await page.getByRole('link', { name: 'For the client' }).click();
  const stopped = page.getByRole('region', { name: 'What was stopped, and why' });
  await expect(stopped).toContainText('They look for work, not for hives');
  await expect(page.getByRole('region', { name: 'What stays open' })).toContainText(
    'our best seller in spring',
  );
  await expectAccessible(page);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'XLSX' }).click();
  expect((await download).suggestedFilename()).toMatch(/^Larkfell · Web search 2026-.* to 2026-.*\.xlsx$/);
});
