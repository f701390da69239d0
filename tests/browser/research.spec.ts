import { expect, test, type Locator, type Page } from '@playwright/test';
import { expectAccessible, watchErrors } from '../support/page';

/** Research from an empty sheet to the platform, on one page: by keyboard alone where it can be. */
test.describe.configure({ mode: 'serial' });
const ACCOUNT = '/larkfell-web';
/** Another name each time, for the campaign that bears it is there afterwards. */
const SHEET = `Winter feed ${Date.now() % 100_000}`;

let page: Page;
let errors: string[];
const dialog = () => page.getByRole('dialog');
const inHand = () => page.getByRole('region', { name: 'In hand' });
const grid = (name: string) => page.getByRole('grid', { name });
const tab = (name: RegExp) => page.getByRole('tab', { name });
const tray = () => page.getByTestId('tray-count');
const gathered = () => dialog().getByRole('status');

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext()).newPage();
  errors = watchErrors(page);
  await page.goto(`${ACCOUNT}/research`);
  await emptyTray();
});
test.afterAll(async () => {
  await emptyTray();
  await page.context().close();
});

/** Takes out what other tests left in the tray. */
async function emptyTray() {
  const { changes } = (await (await page.request.get(`/api${ACCOUNT}/tray`)).json()) as {
    changes: { id: number }[];
  };
  const headers = { origin: new URL(page.url()).origin };
  const changeIds = changes.map(({ id }) => id);
  if (changeIds.length > 0)
    await page.request.delete(`/api${ACCOUNT}/tray`, { data: { changeIds }, headers });
  await page.reload();
}

/** Goes on, or back, by Tab until something has the focus. */
async function tabTo(target: Locator, key: 'Tab' | 'Shift+Tab' = 'Tab') {
  for (let i = 0; i < 60; i++) {
    if (await target.evaluate((one) => one === document.activeElement)) return;
    await page.keyboard.press(key);
  }
  await expect(target).toBeFocused();
}

test('a sheet is begun and filled by keyboard alone, and shows what is left of its ideas', async () => {
  await tabTo(page.getByRole('button', { name: 'New sheet' }));
  await page.keyboard.press('Enter');
  await page.keyboard.type(SHEET);
  await page.keyboard.press('Enter');
  await tabTo(page.getByRole('button', { name: 'Gather ideas' }));
  await page.keyboard.press('Enter');
  const stems = dialog().getByLabel('Stems, parted by commas');
  await tabTo(stems);
  await page.keyboard.type('bee hive');
  await page.keyboard.press('Enter');
  await expect(gathered()).toContainText(/\d ideas? from ideas of bee hive/, { timeout: 20_000 });
  await page.keyboard.press('Escape');
  const remainders = grid('Remainders');
  await expect(remainders).toBeFocused();
  await expect(remainders.getByRole('row').nth(1)).toContainText(/\w/);
  await expect(page.getByRole('region', { name: 'Stems', exact: true })).toContainText('bee hive');
  await expectAccessible(page);
});

test('a remainder goes with all its ideas: dropped, taken back, put in the tray', async () => {
  const open = async () => Number((await tab(/Remainders/).textContent())!.replace(/\D/g, ''));
  const before = await open();
  await page.keyboard.press('ArrowDown');
  await expect(inHand()).toContainText(/Holds \d+ idea/);
  const colleague = await page.context().newPage();
  await colleague.goto(page.url());
  const seen = colleague.getByRole('tab', { name: /Dropped/ });
  await expect(seen).toContainText(' 0');
  await page.bringToFront();
  await page.keyboard.press('x');
  await expect.poll(open).toBeLessThan(before);
  await expect(seen).not.toContainText(' 0');
  await colleague.close();
  await page.keyboard.press('Control+z');
  await expect.poll(open).toBe(before);
  // What never converts in the demo: nothing of it is protected, whatever days went by.
  await page.getByLabel('Words and runs, parted by commas').fill('allergy');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Show what would go' }).click();
  await expect(
    grid('Remainders')
      .getByRole('row', { name: /allergy/ })
      .first(),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Stop the words typed' }).click();
  await expect(
    inHand()
      .getByRole('row', { name: /allergy/ })
      .first(),
  ).toBeVisible();
  await expect(inHand().locator('[aria-busy="true"]')).toHaveCount(0);
  await inHand().getByRole('button', { name: 'Put in the tray' }).click();
  await expect(tray()).toContainText(/change/);
  await expect(tab(/In the tray/)).not.toContainText(/ 0$/);
  await page.getByLabel('Words and runs, parted by commas').fill('');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Show the rest' })).toBeHidden();
  await expect(grid('Remainders')).toBeFocused();
});

test('what stays is grouped, taken, named and made into ad groups, by keyboard alone', async () => {
  await tabTo(tab(/Remainders/), 'Shift+Tab');
  await page.keyboard.press('ArrowRight');
  await expect(tab(/Groups/)).toBeFocused(); // the tabs move the focus a moment after the key
  await page.keyboard.press('Enter');
  const groups = grid('Groups');
  await expect(groups).toBeFocused();
  await expect(inHand()).toContainText('Proposed');
  await page.keyboard.press('ArrowRight');
  await expect(groups.getByRole('row').nth(2)).toContainText(/\w/);
  await page.keyboard.press('Enter');
  await expect(page.getByText(/ taken$/).first()).toBeVisible();
  await expectAccessible(page);
  await expect(groups.getByRole('row').nth(1)).not.toContainText('proposed');
  await page.keyboard.press('Home');
  await page.keyboard.press('n');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Wintering');
  await page.keyboard.press('Enter');
  await expect(groups.getByRole('row', { name: /Wintering/ })).toBeVisible();
  await tabTo(page.getByRole('button', { name: 'Make ad groups…' }), 'Shift+Tab');
  await page.keyboard.press('Enter');
  await tabTo(dialog().getByLabel('Daily budget'));
  await page.keyboard.type('15');
  await expectAccessible(page);
  await page.keyboard.press('Enter');
  await expect(dialog()).toBeHidden();
  await expect(page.getByText(/changes? put in the tray/).first()).toBeVisible();
});

test('a group is drawn onto another one, and that is undone', async () => {
  const groups = grid('Groups');
  const count = () => tab(/Groups/).textContent();
  await page.getByRole('button', { name: /^Take all/ }).click();
  await expect.poll(() => groups.getByText('proposed').count()).toBeLessThan(5);
  const before = await count();
  const [from, onto] = [groups.getByRole('row').nth(3), groups.getByRole('row').nth(1)];
  await from.getByTitle('Draw it onto a group').hover();
  await page.mouse.down();
  await onto.locator('b').hover();
  await page.mouse.move(0, 0, { steps: 1 });
  await onto.locator('b').hover();
  await page.mouse.up();
  await expect(page.getByText(/ merged into /).first()).toBeVisible();
  await expect.poll(count).not.toBe(before);
  await page.keyboard.press('Control+z');
  await expect.poll(count).toBe(before);
});

test('a brief is answered, cleaned, checked, and goes to a list', async () => {
  await page.getByRole('button', { name: 'Gather more' }).click();
  await dialog().getByRole('tab', { name: 'Brief' }).click();
  await dialog().getByLabel('What it sells').fill('bee hives and tools');
  await dialog().getByRole('button', { name: 'Gather', exact: true }).click();
  await expect(gathered()).toContainText(/candidates? from brief about/, { timeout: 20_000 });
  await expect(gathered()).toContainText(/lines? cleaned/);
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await tab(/Candidates/).click();
  const candidates = grid('Candidates');
  await expect(candidates.getByRole('row').nth(1)).toContainText(/\w/);
  await expectAccessible(page);
  const place = inHand().getByRole('combobox', { name: 'Place' });
  await place.click();
  const list = page.getByRole('option', { name: /^list / }).first();
  const name = (await list.textContent())!.replace(/^list /, '');
  await list.click();
  await expect(place).toContainText(name);
  await page.getByRole('button', { name: /^Put \d+ in the tray$/ }).click();
  await expect(page.getByText(/changes? put in the tray/).first()).toBeVisible();
  const region = page.getByRole('region', { name: 'Tray' });
  await region.getByRole('button', { name: 'Send the tray…' }).click();
  await dialog()
    .getByRole('button', { name: /^Send \d+ changes$/ })
    .click();
  await expect(page.getByTestId('sent-note').first()).toContainText(/(\d+) of \1 changes read back as sent/, {
    timeout: 30_000,
  });
  await page.goto(`${ACCOUNT}/ledger?find=${encodeURIComponent(`list ${name}`)}`);
  await expect(page.getByRole('grid').first()).toContainText(/Stop “.*” \(\w+\) in list/);
  await page.goto(`${ACCOUNT}/ledger?find=ad+group+Wintering`);
  await expect(page.getByRole('grid').first()).toContainText('Add ad group Wintering');
  expect(errors).toEqual([]);
});

test('at 1024 px nothing lies outside, and each view is accessible in the dark', async () => {
  await page.setViewportSize({ width: 1024, height: 768 });
  for (const shown of ['open', 'groups', 'candidates']) {
    await page.goto(`${ACCOUNT}/research?shown=${shown}`);
    await page.locator('.data-table').first().waitFor();
    await page.waitForLoadState('networkidle');
    await page.evaluate(() => (document.documentElement.dataset.theme = 'dark'));
    await expectAccessible(page);
    const beyond = await page.evaluate(
      () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
    );
    expect(beyond, shown).toBeLessThanOrEqual(0);
  }
});
