import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, toNumber, watchErrors } from '../support/page';

/** The guided pass through what surely can't pay, by keyboard alone. One page, step after step. */
test.describe.configure({ mode: 'serial' });

let page: Page;
let errors: string[];
let keys = 0;

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext()).newPage();
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));
test.afterAll(() => page.context().close());

const press = async (key: string) => {
  keys += 1;
  await page.keyboard.press(key);
};
const list = () => page.getByRole('grid', { name: 'What surely can’t pay' });
const inHand = () => page.getByRole('region', { name: 'In hand' });
const stepHead = (name: RegExp) => list().getByRole('row', { name });
/** Asked again at once: what is decided is there within a moment. */
const quickly = <T>(ask: () => Promise<T>) => expect.poll(ask, { intervals: [30, 60, 100] });
const toGain = async () => toNumber(await page.getByTestId('to-gain').textContent());
const share = () => page.getByRole('progressbar', { name: /^Share of what can surely be stopped/ });
const changes = async () =>
  toNumber(
    await page
      .getByRole('region', { name: 'Tray' })
      .getByText(/^(\d[\d,]* changes?|empty)/)
      .first()
      .textContent(),
  );

test('is reached by Tab from Sift, and says what it would bring', async () => {
  await page.goto('/larkfell-web/sift');
  await expect(page.locator('#term-0')).toHaveText(/\w{3}/);
  const button = page.getByRole('button', { name: 'What surely can’t pay' });
  for (let i = 0; i < 30 && !(await button.evaluate((one) => one === document.activeElement)); i++)
    await press('Shift+Tab');
  await press('Enter');
  await expect(page).toHaveURL(/show=pass/);
  await expect(list()).toBeFocused();
  await expect(stepHead(/^1 Words at fault/)).toContainText(
    /\d+, [\d,.]+, at the risk of [\d.]+ conversions/,
  );
  await expect(inHand()).toContainText(/would have brought [\d.]+ conversions; it brought/);
  await quickly(toGain).toBeGreaterThan(500);
  await expectAccessible(page);
});

test('one word at a press goes into the tray, and comes back by undo', async () => {
  const before = await toGain();
  await press('Enter');
  await quickly(toGain).toBeLessThan(before);
  await quickly(changes).toBeGreaterThan(0);
  await page.keyboard.press('Control+z');
  await quickly(toGain).toBe(before);
});

test('what is not at fault is called so, and offered no more', async () => {
  const row = () => list().locator('[role=row][aria-selected=true] b').first();
  const word = await row().textContent();
  await press('l');
  await quickly(() => row().textContent()).not.toBe(word);
  await page.keyboard.press('Control+z');
  await quickly(() => row().textContent()).toBe(word);
});

test('from nothing to four fifths of what can be found takes at most 200 keys', async () => {
  await expect(share()).toHaveJSProperty('value', 0);
  const value = () => share().evaluate((bar: HTMLProgressElement) => bar.value);
  let decided = 0;
  for (; (await value()) < 0.8 && keys < 200; decided++) {
    const before = await toGain();
    await press('Enter');
    await quickly(toGain).not.toBe(before);
  }
  await quickly(value).toBeGreaterThanOrEqual(0.8);
  expect(keys).toBeLessThanOrEqual(200);
  await expectAccessible(page);
  for (let i = 0; i < decided; i++) {
    const before = await toGain();
    await page.keyboard.press('Control+z');
    await quickly(toGain).not.toBe(before);
  }
  await expect(share()).toHaveJSProperty('value', 0);
});

test('a whole step goes at one press, and what is left is read by cost', async () => {
  await press('Home');
  let steps = 0;
  for (let before = await toGain(); before > 0; before = await toGain(), steps++) {
    await press('Shift+Enter');
    await quickly(toGain).toBeLessThan(before);
  }
  expect(steps).toBeLessThanOrEqual(2);
  await expect(stepHead(/^1 Words at fault/)).toContainText('nothing, or all of it is decided');
  await expect(inHand()).toContainText('over all days that are kept');
  const left = await stepHead(/^3 What is left/).textContent();
  await press('l');
  await quickly(() => stepHead(/^3 What is left/).textContent()).not.toBe(left);
  await page.keyboard.press('Control+z');
  await quickly(() => stepHead(/^3 What is left/).textContent()).toBe(left);
  for (let i = 0; i < steps; i++) {
    const before = await changes();
    await page.keyboard.press('Control+z');
    await quickly(changes).toBeLessThan(before);
  }
  await quickly(changes).toBe(0);
  await expect(stepHead(/^1 Words at fault/)).toContainText('at the risk of');
});

test('leads back to the terms, which can be filtered by what surely misses', async () => {
  await page.getByRole('button', { name: 'Back to the terms' }).click();
  await expect(page).not.toHaveURL(/show=pass/);
  const remaining = async () => toNumber(await page.getByTestId('count-remaining').textContent());
  await quickly(remaining).toBeGreaterThan(1_000);
  const all = await remaining();
  await page.getByRole('button', { name: 'Views' }).click();
  await page.getByRole('menuitem', { name: /^Surely missing the target/ }).click();
  await expect(page).toHaveURL(/evidence=sure/);
  await quickly(remaining).toBeLessThan(all / 10);
  await page.getByRole('button', { name: /^Surely missing the target: show/ }).click();
  await expect(page).not.toHaveURL(/evidence=sure/);
});
