import { expect, test, type Browser, type Page } from '@playwright/test';
import { choose, expectAccessible, toNumber, watchErrors } from '../support/page';

/** Sift as a person works through it, by keyboard where it says so. One page, step after step. */
test.describe.configure({ mode: 'serial' });

const SIFT = '/larkfell-market/sift';
let page: Page;
let errors: string[];
let browserOf: Browser;

test.beforeAll(async ({ browser }) => {
  browserOf = browser;
  page = await (await browser.newContext()).newPage();
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors.filter((e) => !e.includes('ERR_INTERNET_DISCONNECTED'))).toEqual([]));
test.afterAll(() => page.context().close());

/** Holds requests back until the test opens it. */
function aGate() {
  let open = () => {};
  const opened = new Promise<void>((resolve) => (open = resolve));
  return { opened, open: () => open() };
}

const count = async (view: string, of = page) =>
  toNumber(await of.getByTestId(`count-${view}`).textContent());
const grid = (of = page) => of.getByRole('grid', { name: 'Search terms' });
const inHand = (of = page) => of.getByRole('region', { name: 'In hand' });
const rowInHand = (of = page) => grid(of).locator('[role=row][aria-selected=true]');
const termInHand = async () => (await rowInHand().locator('[data-raw]').getAttribute('data-raw'))!;

test('a ready view is chosen by keyboard, saved under a name, and found again', async () => {
  await page.goto(SIFT);
  await expect(rowInHand()).toBeVisible();
  await page.getByRole('button', { name: 'Views' }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter'); // the first: spend without return
  await expect(page).toHaveURL(/returns=none/);
  await page.getByLabel('Clicks at least').fill('4');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/clicks=4/);
  await page.getByRole('button', { name: 'Views' }).press('Enter');
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await page.getByLabel('Name of the view').fill('Four clicks, nothing');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Four clicks, nothing' })).toBeVisible();
  await page.goto(SIFT);
  await page.getByRole('button', { name: 'Views' }).click();
  await page.getByRole('menuitem', { name: /Four clicks, nothing/ }).click();
  await expect(page).toHaveURL(/clicks=4/);
  await expectAccessible(page);
});

test('an address that makes no sense is explained and mended', async () => {
  await page.goto(`${SIFT}?clicks=lots&view=all&campaign=424242&returns=none`);
  // Of what was streamed a hidden copy may still lie beside the page.
  const main = page.getByRole('main');
  await expect(main.getByText(/clicks “lots” \(it must be a whole number/)).toBeVisible();
  await expect(main.getByText(/campaign “424242” \(this account has no such campaign\)/)).toBeVisible();
  await expect(page).toHaveURL(/\?returns=none$/);
  await expect(rowInHand()).toBeVisible();
  await page.getByRole('button', { name: 'Understood' }).click();
});

test('a table without rows names the days that the lag keeps back', async () => {
  await page.goto(`${SIFT}?text=nobody-ever-asked-this`);
  const table = page.getByRole('grid', { name: 'Search terms' });
  await expect(table).toContainText('No term is left under these filters.');
  await expect(table).toContainText(/Rows of \d+ \w+ – \d+ \w+ are loaded but not shown yet/);
});

test('the keys k, l and n: its keywords, aside until more clicks, the next unseen', async () => {
  await page.goto(`${SIFT}?returns=none`);
  await expect(rowInHand()).toBeVisible();
  await grid().focus();
  await page.keyboard.press('k');
  await expect(page.getByRole('group', { name: /^Keywords of/ })).toBeVisible();
  await page.keyboard.press('k');
  const term = await termInHand();
  const more = await page.getByLabel('More clicks until it comes back').inputValue();
  const before = await count('aside');
  await page.keyboard.press('l');
  await expect.poll(() => count('aside')).toBe(before + 1);
  await expect.poll(termInHand).not.toBe(term);
  await page.getByRole('tab', { name: /^Set aside \d/ }).click();
  await expect(inHand()).toContainText(`until it has ${more} more click`);
  await page.getByRole('button', { name: 'Take back from aside' }).click();
  await expect.poll(() => count('aside')).toBe(before);
  const noted = page.waitForResponse((answer) => answer.url().endsWith('/sift/looked') && answer.ok());
  await page.getByRole('tab', { name: /^Remaining/ }).click();
  await noted; // once it was long enough in hand to have been looked at
  await page.reload();
  await expect(rowInHand()).toBeVisible();
  const first = await termInHand();
  await grid().focus();
  await page.keyboard.press('n');
  await expect.poll(termInHand).not.toBe(first);
  await expect(page.getByTestId('pass')).toContainText(/of the spend/);
});

test('a key pressed before the term is weighed, or as the rows change, is not lost', async () => {
  await page.goto(`${SIFT}?returns=none`);
  await expect(rowInHand()).toBeVisible();
  await page.getByLabel('Letters that the term holds').fill('costume');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/text=costume/);
  await expect(rowInHand()).toContainText('costume');
  const before = await count('stopped');
  const answers = aGate();
  await page.route('**/sift/choice?*', async (route) => {
    await answers.opened;
    await route.continue().catch(() => undefined); // its row may have gone meanwhile
  });
  await grid().focus();
  await page.keyboard.press('ArrowDown');
  const term = await termInHand();
  await page.keyboard.press('w');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('1');
  expect(await count('stopped')).toBe(before); // nothing is weighed yet
  answers.open();
  await expect.poll(() => count('stopped')).toBe(before + 1);
  await expect(page.getByText(`Stop “${term}”`).first()).toBeVisible();
  await page.unroute('**/sift/choice?*');
  await page.keyboard.press('Control+z');
  await expect.poll(() => count('stopped')).toBe(before);
  await page.goBack();
  await expect(page).not.toHaveURL(/text=costume/);
  await expect(grid()).toBeFocused();
});

test('undo pressed at once takes back what is still on its way, and nothing before it', async () => {
  await page.goto(`${SIFT}?returns=none&text=costume`);
  await expect(rowInHand()).toBeVisible();
  const [kept, stopped] = [await count('kept'), await count('stopped')];
  await grid().focus();
  await page.keyboard.press('o');
  await expect.poll(() => count('kept')).toBe(kept + 1);
  const decisions = aGate();
  await page.route('**/tray', async (route) => {
    if (route.request().method() === 'POST') await decisions.opened;
    await route.continue();
  });
  await page.keyboard.press('w');
  await page.keyboard.press('Control+z');
  decisions.open();
  await expect(page.getByText(/^Undone: Stop “/)).toBeVisible();
  await page.unroute('**/tray');
  await expect.poll(() => count('stopped')).toBe(stopped);
  await expect.poll(() => count('kept')).toBe(kept + 1);
  await page.keyboard.press('Control+z');
  await expect.poll(() => count('kept')).toBe(kept);
});

test('a whole term that is held back is what a reason would force, not the words chosen before', async () => {
  await page.goto(`${SIFT}?returns=none&text=costume`);
  await expect(rowInHand()).toBeVisible();
  const before = await count('kept');
  const term = await termInHand();
  await grid().focus();
  await page.keyboard.press('o');
  await expect.poll(() => count('kept')).toBe(before + 1);
  await page.getByRole('tab', { name: /^Kept/ }).click();
  await expect(rowInHand()).toBeVisible();
  await page.getByLabel('Letters that the term holds').fill(term);
  await page.keyboard.press('Enter');
  await expect(rowInHand()).toContainText(term.split(' ')[0]!);
  await grid().focus();
  await page.keyboard.press('1');
  await page.keyboard.press('w');
  await expect(inHand().getByRole('alert')).toContainText('Held back: it would stop a protected term');
  await expect(inHand().getByRole('radio', { name: 'exact' })).toBeChecked();
  await inHand().getByRole('button', { name: 'No longer keep' }).click();
  await expect.poll(() => count('kept')).toBe(before);
});

test('a note stands by the term with who wrote it, and can be taken back', async () => {
  await page.goto(`${SIFT}?returns=none`);
  await inHand().getByText('Write a note').click();
  await inHand().getByLabel('Note', { exact: true }).fill('seen at the fair');
  await page.keyboard.press('Enter');
  await expect(inHand()).toContainText('seen at the fair Maren Oakes');
  await expect(rowInHand()).toContainText('note');
  await inHand().getByRole('button', { name: 'Remove the note: seen at the fair' }).click();
  await expect(inHand()).not.toContainText('seen at the fair');
});

test('rows marked by Space and Ctrl A are stopped by the smallest set, by keyboard alone', async () => {
  await page.goto(`${SIFT}?returns=none&text=costume`);
  await expect(rowInHand()).toBeVisible();
  await grid().focus();
  await page.keyboard.press(' ');
  await expect(inHand()).toContainText('1 term marked');
  await page.keyboard.press('Control+a');
  const marked = await count('remaining');
  await expect(inHand()).toContainText(`${marked} terms marked`);
  await expect(page.getByTestId('batch')).toContainText('Stops nothing that is not marked.');
  await inHand().getByRole('radio', { name: 'these and their like' }).check();
  await expect(page.getByTestId('held-back')).toContainText(/Of those held back \d+ %/);
  await expectAccessible(page);
  await inHand().getByRole('radio', { name: 'these rows exactly' }).check();
  await expect(page.getByTestId('held-back')).toHaveCount(0);
  await grid().focus();
  await expect(page.getByRole('button', { name: /^Put in the tray/ })).toBeEnabled();
  await page.keyboard.press('Enter');
  await expect.poll(() => count('stopped')).toBeGreaterThan(0);
  await expect(inHand()).not.toContainText('marked');
});

test('what the tray stops is read again, and a row is pulled out', async () => {
  await page.getByRole('tab', { name: /^In the tray/ }).click();
  await expect(rowInHand()).toBeVisible();
  const term = await termInHand();
  const ways = page.getByRole('region', { name: 'Pull it out' });
  await expect(ways).toContainText('would stop it. Pull it out:');
  await expectAccessible(page);
  const line = grid().getByTitle(term, { exact: true });
  // Where it ran in several places, a change for each of them stops it.
  await expect(async () => {
    if (await line.isVisible())
      await ways.getByRole('button', { name: 'Take it out, with nothing in its place' }).first().click();
    await expect(line).toBeHidden({ timeout: 5_000 });
  }).toPass();
  await page.getByRole('tab', { name: /^Remaining/ }).click();
  await expect(grid().getByTitle(term, { exact: true })).toBeVisible();
});

test('the plot leads to the terms inside a frame, and so does its table', async () => {
  await page.goto(`${SIFT}?show=plot`);
  const frame = (await page.getByTestId('plot-frame').boundingBox())!;
  await expectAccessible(page);
  await page.mouse.move(frame.x + frame.width * 0.4, frame.y + frame.height * 0.2);
  await page.mouse.down();
  await page.mouse.move(frame.x + frame.width - 4, frame.y + frame.height - 2, { steps: 5 });
  await page.mouse.up();
  await expect(page).toHaveURL(/region=/);
  await expect(rowInHand()).toBeVisible();
  await page.getByRole('button', { name: /^Inside/ }).click();
  await expect(page).not.toHaveURL(/region=/);
  await page.getByRole('button', { name: 'Plot' }).click();
  await page.getByRole('button', { name: '4–7' }).click();
  await expect(page).toHaveURL(/region=4-7/);
  await expect(rowInHand()).toBeVisible();
});

test('an exact keyword is offered a lower bid, and a product is excluded as one', async () => {
  await page.goto(`${SIFT}?served=exact&sort=cost`);
  await expect(page.getByRole('region', { name: 'Its own keyword' })).toContainText('live exact keyword');
  await expect(page.getByRole('button', { name: /^Put in the tray/ })).toBeDisabled();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Pause the keyword' }).click();
  await expect(page.getByRole('region', { name: 'Its own keyword' })).toContainText('In the tray: Pause');
  await page.goto(`${SIFT}?trait=code`);
  const code = await termInHand();
  await page.getByRole('button', { name: 'Exclude in the campaign' }).click();
  await expect(page.getByRole('region', { name: 'Tray' })).toContainText(`Exclude product ${code}`);
  await page.keyboard.press('Control+z');
});

test('themes and neutral words', async () => {
  await page.goto(`${SIFT}?panel=themes`);
  const themes = page.getByRole('group', { name: 'Themes' });
  await themes.locator('[aria-pressed]').first().click();
  await expect(page).toHaveURL(/holding=/);
  await expectAccessible(page);
  await page.goto(SIFT);
  const runs = page.getByRole('group', { name: 'Runs of words' });
  const word = runs.getByRole('button').nth(3);
  const name = (await word.textContent())!.match(/^[^\d …]+/)![0];
  await word.click();
  await page.getByRole('button', { name: 'Neutral' }).click();
  await expect(page.getByText('1 neutral word not shown')).toBeVisible();
  await page.getByText('1 neutral word not shown').click();
  await page.getByRole('button', { name: 'Take off' }).click();
  await expect(page.getByText('neutral word not shown')).toBeHidden();
  await expect(runs.getByText(name, { exact: false }).first()).toBeVisible();
});

test('what another person does is seen within seconds, and told', async () => {
  await page.goto(`${SIFT}?returns=none&sort=clicks`);
  await expect(rowInHand()).toBeVisible();
  const second = await (await browserOf.newContext()).newPage();
  await second.goto(SIFT);
  await choose(second.getByLabel('You are'), 'Ilse Brandow');
  await second.goto(`${SIFT}?returns=none&sort=clicks`);
  await expect(rowInHand(second)).toBeVisible();
  await grid(second).focus();
  await second.keyboard.press('w');
  await expect(second.getByText(/^Stop “/).first()).toBeVisible();
  await expect(page.getByText(/^Ilse Brandow: Stop “/)).toBeVisible();
  await second.context().close();
});

test('a decision without a connection waits, says so, and is sent when it is back', async () => {
  const before = await count('kept');
  await page.context().setOffline(true);
  await expect(page.getByText('No connection to Gate Post.')).toBeVisible();
  await grid().focus();
  await page.keyboard.press('o');
  await expect(page.getByText('1 decision is kept in this browser')).toBeVisible();
  await expect(rowInHand().getByRole('img', { name: 'decided, waits for the connection' })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press(' ');
  await inHand().getByRole('button', { name: /^Keep/ }).click();
  await expect(page.getByText('2 decisions are kept in this browser')).toBeVisible();
  await page.context().setOffline(false);
  await expect(page.getByText('No connection to Gate Post.')).toBeHidden();
  await expect.poll(() => count('kept')).toBe(before + 2);
});

test('the keys are listed, and single letters can be switched off', async () => {
  await page.getByRole('button', { name: 'Keys' }).click();
  await expectAccessible(page);
  await page.getByRole('checkbox', { name: /Single letters/ }).uncheck();
  await page.getByRole('button', { name: 'Close' }).click();
  const kept = await count('kept');
  await grid().focus();
  const term = await termInHand();
  await page.keyboard.press('o');
  await page.keyboard.press('ArrowDown'); // keys are heard in order: had the letter been, the term would be gone
  await expect.poll(termInHand).not.toBe(term);
  await page.keyboard.press('ArrowUp');
  await expect.poll(termInHand).toBe(term);
  expect(await count('kept')).toBe(kept);
});
