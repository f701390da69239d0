import { expect, test, type Page } from '@playwright/test';
import { zipped } from '../support/zipped';
import { choose, expectAccessible, toNumber, watchErrors } from '../support/page';

/** From a report to a stopped query, as a person goes through it. One page, step after step. */
test.describe.configure({ mode: 'serial' });

const ACCOUNT = '/larkfell-web';
let page: Page;
let errors: string[];

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext()).newPage();
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));
test.afterAll(() => page.context().close());

const count = async (view: string) => toNumber(await page.getByTestId(`count-${view}`).textContent());
const grid = () => page.getByRole('grid', { name: 'Search terms' });
const inHand = () => page.getByRole('region', { name: 'In hand' });
const tray = () => page.getByRole('region', { name: 'Tray' });
const rowInHand = () => grid().locator('[role=row][aria-selected=true]');

const REPORT = [
  'Larkfell, October',
  'Klicks;Tag;Kosten (EUR);CTR %;Suchbegriff;Kampagne;Anzeigengruppe;Bestellungen',
  '41;31.10.2026;1.046,20;1,41 %;zebra hive puzzle;Hives · Starter;Complete hives;0',
  '7;30.10.2026;3,50;1,2 %;zebra hive stand;Hives · Starter;Complete hives;0',
  '3a;30.10.2026;3,50;1,2 %;broken row;Hives · Starter;Complete hives;0',
  '3;30.10.2026;0,70;2 %;=cmd() hive;Hives · Starter;Complete hives;0',
  '3;30.10.2026;0,70;2 %;<script>document.title="taken"</script>;Hives · Starter;Complete hives;0',
  'Gesamt;;1.050,40;;;;;0',
].join('\n');

test('Intake reads a report of any column order, shows how, and takes corrections', async () => {
  await page.goto(`${ACCOUNT}/intake`);
  await expectAccessible(page);
  await page
    .getByLabel('Report files')
    .setInputFiles({ name: 'oktober.csv', mimeType: 'text/csv', buffer: Buffer.from(REPORT) });
  await expect(page.getByText('1 line above it set aside')).toBeVisible();
  await expect(page.getByTestId('sum-rows read')).toHaveText('4');
  await expect(page.getByTestId('sum-cost')).toHaveText('EUR 1,051.10');
  await expect(page.getByRole('cell', { name: 'clicks “3a”' })).toBeVisible();
  await choose(page.getByLabel('Bestellungen is taken for'), 'left out');
  await expect(page.getByTestId('sum-conversions')).toHaveText('–');
  await choose(page.getByLabel('Bestellungen is taken for'), 'conversions');
  await expect(page.getByTestId('sum-conversions')).toHaveText('0');
  await expectAccessible(page);
});

test('loading says what it added, and the same file twice changes nothing', async () => {
  await page.getByRole('button', { name: 'Load 4 rows' }).click();
  await expect(page.getByText('Loaded: 4 new rows, 0 replaced, 1 refused.')).toBeVisible();
  await page.getByRole('button', { name: 'History' }).click();
  await expect(page.getByRole('row', { name: /oktober\.csv.*loaded/ })).toBeVisible();
  await page
    .getByLabel('Report files')
    .setInputFiles({ name: 'again.csv', mimeType: 'text/csv', buffer: Buffer.from(REPORT) });
  await expect(page.getByText('This file was loaded before')).toBeVisible();
  expect(await page.title()).not.toContain('taken');
});

test('what the file can not decide is asked; a recipe answers for the next one', async () => {
  const file = (name: string, day: string) => ({
    name,
    mimeType: 'text/csv',
    buffer: Buffer.from(`Typed words,When it was,Clicks,Cost\nzebra ${name},${day}/04/2026,1,"1,234"\n`),
  });
  await page.getByLabel('Report files').setInputFiles(file('first.csv', '03'));
  await choose(page.getByLabel('Typed words is taken for'), 'search term');
  await choose(page.getByLabel('When it was is taken for'), 'day');
  // Quickly, one after the other: the second must not lose the first.
  await page.getByRole('radio', { name: 'day, month, year' }).click();
  await page.getByRole('radio', { name: 'a comma: 1,50' }).click();
  await expect(page.getByTestId('sum-cost')).toHaveText('EUR 1.23');
  await page.getByLabel('Keep this reading as a recipe').fill('Odd sheet');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Kept as the recipe Odd sheet.').first()).toBeVisible();
  await page.getByLabel('Report files').setInputFiles(file('second.csv', '05'));
  await expect(page.getByText('read by the recipe Odd sheet')).toBeVisible();
  await expect(page.getByTestId('sum-days')).toContainText('5 Apr');
  await expectAccessible(page);
});

test('pasted cells and archives are read like files, and a load can be taken back', async () => {
  await page.getByRole('button', { name: 'Paste', exact: true }).click();
  await page.getByLabel('Pasted cells').fill('Search term\tDay\tClicks\nzebra paste\t2026-04-09\t4\n');
  await page.getByRole('button', { name: 'Read these cells' }).click();
  await expect(page.getByTestId('sum-clicks')).toHaveText('4');
  await page.getByRole('button', { name: 'Load 1 row' }).click();
  await page.getByRole('button', { name: 'Take back this load' }).click();
  await expect(page.getByText('Taken back. It can be loaded again.')).toBeVisible();
  const archive = Buffer.from(
    await zipped({ 'a.csv': 'Search term,Day\nx,2026-04-01\n', 'b.csv': 'Term;Tag\ny;1.4.26\n' }),
  );
  await page
    .getByLabel('Report files')
    .setInputFiles({ name: 'two.zip', mimeType: 'application/zip', buffer: archive });
  await expect(page.getByRole('row', { name: /two\.zip › a\.csv.*not loaded/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /two\.zip › b\.csv.*not loaded/ })).toBeVisible();
  await expect(page.getByText('missing between').or(page.getByText('No gap.'))).toBeVisible();
});

test('a file that is no report says so and stores nothing', async () => {
  const png = Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0]);
  await page
    .getByLabel('Report files')
    .setInputFiles({ name: 'photo.csv', mimeType: 'text/csv', buffer: png });
  await expect(page.getByRole('alert').filter({ hasText: 'not a table' })).toContainText('PNG picture');
  await page
    .getByLabel('Report files')
    .setInputFiles({ name: 'empty.csv', mimeType: 'text/csv', buffer: Buffer.alloc(0) });
  await expect(page.getByText(/file is empty/).first()).toBeVisible();
});

test('Sift shows the waste first; filters live in the URL and survive Back', async () => {
  await page.goto(`${ACCOUNT}/sift`);
  await expect(rowInHand()).toContainText('zebra');
  await expect(inHand()).toContainText('Hives · Starter');
  await expectAccessible(page);
  const all = await count('remaining');
  expect(all).toBeGreaterThan(500);
  await choose(page.getByLabel('Return', { exact: true }), 'no conversion');
  await expect(page).toHaveURL(/returns=none/);
  await expect.poll(() => count('remaining')).toBeLessThan(all);
  await page.goBack();
  await expect.poll(() => count('remaining')).toBe(all);
  const word = page
    .getByRole('region', { name: 'Words' })
    .getByRole('group', { name: 'Runs of words' })
    .getByRole('button')
    .nth(2);
  const name = (await word.textContent())!.match(/^[^\d …]+/)![0];
  await word.click();
  await expect(page).toHaveURL(new RegExp(`holding=${name}`));
  await expect.poll(() => count('remaining')).toBeLessThan(all);
  await page.getByRole('button', { name: new RegExp(`^Holding ${name}`) }).click();
  await expect.poll(() => count('remaining')).toBe(all);
});

test('words are chosen by key, In hand weighs them, and Enter puts them in the tray', async () => {
  await grid().focus();
  await page.keyboard.press('1');
  await expect(inHand().locator('caption + thead')).toContainText('zebra');
  await expect(page.getByTestId('consequence')).toContainText(
    'Stops 2 terms of these days: 48 clicks, 1,049.70 spent, no conversion',
  );
  await expect(page.getByTestId('consequence')).toContainText('touches no live keyword, no protected term');
  const before = await count('remaining');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('tray-count')).toHaveText('1 change, not sent');
  await expect(page.getByTestId('tray-cost')).toHaveText('1,049.70');
  await expect.poll(() => count('remaining')).toBe(before - 2);
  await expect.poll(() => count('stopped')).toBe(2);
});

test('undo takes it out again, and doing it again puts it back', async () => {
  await grid().focus();
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('tray-count')).toHaveText('empty');
  await expect(rowInHand()).toContainText('zebra');
  await rowInHand().getByRole('button', { name: 'zebra' }).click();
  await page.getByRole('button', { name: /^Put in the tray/ }).click();
  await expect(page.getByTestId('tray-count')).toHaveText('1 change, not sent');
});

test('a whole term is stopped by one key, and a term is kept by another', async () => {
  await page.getByLabel('Letters that the term holds').fill('hive movie');
  await page.keyboard.press('Enter');
  await expect(rowInHand()).toContainText('movie');
  await grid().focus();
  await page.keyboard.press('w');
  await expect(page.getByTestId('tray-count')).toHaveText('2 changes, not sent');
  await page.getByLabel('Letters that the term holds').fill('jobs');
  await page.keyboard.press('Enter');
  await expect(rowInHand()).toContainText('jobs');
  const kept = (await rowInHand().locator('[data-raw]').getAttribute('data-raw'))!;
  await grid().focus();
  await page.keyboard.press('o');
  await expect.poll(() => count('kept')).toBe(1);
  await page.getByRole('tab', { name: /^Kept/ }).click();
  await expect(rowInHand()).toContainText(kept.split(' ')[0]!);
  await expect(inHand()).toContainText('kept open by Maren Oakes');
});

test('what would stop a protected term is held back, names it, and takes a reason', async () => {
  await grid().focus();
  await page.keyboard.press('1');
  await page.keyboard.press('Enter');
  const alert = inHand().getByRole('alert');
  await expect(alert).toContainText('Held back: it would stop');
  await expect(page.getByTestId('tray-count')).toHaveText('2 changes, not sent');
  await expectAccessible(page);
});

test('Lists: a list is made, filled, hung and shown in the grid', async () => {
  await page.goto(`${ACCOUNT}/lists`);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'New list' }).click();
  await page.getByLabel('Name of the new list').fill('Puzzles');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('row', { name: /Puzzles.*in the tray/ })).toBeVisible();
  await page.getByRole('tab', { name: 'Coverage' }).click();
  await page.getByRole('gridcell', { name: 'Puzzles on Starter: open' }).click();
  await page.getByRole('button', { name: /^Hang here/ }).click();
  await expect(page.getByRole('gridcell', { name: 'Puzzles on Starter: hangs with the tray' })).toBeVisible();
  await page.goto(`${ACCOUNT}/sift?text=costume`);
  await grid().focus();
  await expect(rowInHand()).toContainText('costume');
  await rowInHand().getByRole('button', { name: 'costume' }).click();
  await inHand()
    .getByRole('button', { name: /^Place: / })
    .click();
  await page.getByRole('option', { name: /list Puzzles/ }).click();
  await expect(page.getByTestId('consequence')).toContainText('hangs on 1 campaign: Hives · Starter');
  await page.getByRole('button', { name: /^Put in the tray/ }).click();
  await expect(page.getByTestId('tray-count')).toHaveText('5 changes, not sent');
});

test('the tray names what will change, and is sent and read back', async () => {
  await tray().getByRole('button', { name: 'Send the tray…' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Send 5 changes');
  await expect(dialog).toContainText('Hang Puzzles on Hives · Starter');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Send 5 changes' }).click();
  await expect(page.getByTestId('sent-note')).toContainText('5 of 5 changes read back as sent');
  await expect(page.getByTestId('tray-count')).toHaveText('empty');
});

test('Gate check: key g, a query, and what stops it', async () => {
  await grid().focus();
  await page.keyboard.press('g');
  await page.keyboard.type('Zebra hive puzzle');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('gate-answer')).toContainText('Through in');
  await expect(page.getByRole('row', { name: /zebra phrase campaign Hives · Starter/ })).toBeVisible();
  await expectAccessible(page);
});

test('the Ledger names who, what and why, and the clock shows what was saved', async () => {
  await page.getByRole('button', { name: '+ 1 week' }).click();
  await expect(page.getByText(/It is 29 Nov on the platform now/)).toBeVisible();
  await page.getByRole('button', { name: 'Fetch report' }).click();
  await expect(page.getByText(/Report loaded:/)).toBeVisible({ timeout: 60_000 });
  await page.goto(`${ACCOUNT}/ledger`);
  const row = page.getByRole('row', { name: /Stop “zebra” \(phrase\)/ });
  await expect(row).toContainText('Maren Oakes');
  await expect(row).toContainText('seen in “zebra hive puzzle”');
  await expect(row).toContainText('there');
  await expect(row).toContainText('in 5 days'); // predicted, and saved
  await row
    .getByText(/^Stop “zebra”/)
    .first()
    .click();
  await expect(inHand()).toContainText('1,049.70');
  await expect(inHand()).toContainText('days since');
  await expectAccessible(page);
});

test('what was stopped lies under Already stopped, with the negative that stops it', async () => {
  await page.goto(`${ACCOUNT}/sift?view=already&text=zebra`);
  await expect(rowInHand()).toContainText('zebra');
  await expect(inHand()).toContainText('stopped by “zebra” (phrase) in campaign Hives · Starter');
});

test('undo in the Ledger is a change in the tray', async () => {
  await page.goto(`${ACCOUNT}/ledger`);
  await page.getByRole('button', { name: /^Undo: Stop “zebra”/ }).click();
  await expect(page.getByTestId('tray-count')).toHaveText('1 change, not sent');
  await expect(tray()).toContainText('Let “zebra” (phrase) through again');
  await expect(page.getByRole('row', { name: /Stop “zebra” \(phrase\)/ })).toContainText('undo in the tray');
  await tray()
    .getByRole('button', { name: /^Take out/ })
    .click();
  await expect(page.getByTestId('tray-count')).toHaveText('empty');
});

test('another person is chosen in the strip, and stands beside what they do', async () => {
  await choose(page.getByLabel('You are'), 'Ilse Brandow');
  await page.goto(`${ACCOUNT}/sift?text=tattoo`);
  await expect(rowInHand()).toContainText('tattoo');
  await grid().focus();
  await page.keyboard.press('o');
  await expect(page.getByTestId('count-kept')).toHaveText('1');
  await page.goto(`${ACCOUNT}/ledger`);
  await expect(page.getByRole('row', { name: /Keep “.*tattoo.*” open/ })).toContainText('Ilse Brandow');
});

test('after a stop the forms that would still pass are offered, and one key takes them', async () => {
  const row = (term: string, clicks: number) =>
    `${term}\tHives · Starter\tComplete hives\t2026-11-10\t${clicks}\t${clicks}.00\n`;
  await page.goto(`${ACCOUNT}/intake`);
  await page.getByRole('button', { name: 'Paste', exact: true }).click();
  await page
    .getByLabel('Pasted cells')
    .fill(
      `Search term\tCampaign\tAd group\tDay\tClicks\tCost\n${row('okapi lamp', 4)}${row('old okapi lamps', 3)}`,
    );
  await page.getByRole('button', { name: 'Read these cells' }).click();
  await page.getByRole('button', { name: 'Load 2 rows' }).click();
  await expect(page.getByText('Loaded: 2 new rows')).toBeVisible();
  await page.goto(`${ACCOUNT}/sift?holding=okapi+lamp`);
  await page.locator('[aria-selected=true]').getByRole('button', { name: 'okapi', exact: true }).click(); // what is left is the lamp
  await page.getByRole('button', { name: /^Place: / }).click();
  await page.getByRole('option', { name: /the whole account/ }).click();
  await page.locator('#terms').press('Enter');
  await expect(page.getByRole('region', { name: 'Variants' })).toContainText('lamps');
  await expectAccessible(page);
  await page.locator('#terms').press('v');
  await expect(page.getByRole('region', { name: 'Variants' })).toBeHidden();
  await expect(page.getByText('Stop “lamps”').first()).toBeVisible();
});
