import { expect, test, type Browser, type Page } from '@playwright/test';
import { choose, expectAccessible, watchErrors } from '../support/page';

/** Two people in two browsers, and what each may do. */
test.describe.configure({ mode: 'serial' });

const MARKET = '/larkfell-market';
const [MAREN, TOBIAS] = [1, 2];
let maren: Page;
let tobias: Page;
const errors: string[][] = [];

async function pageOf(browser: Browser, person: number, baseURL: string): Promise<Page> {
  const context = await browser.newContext();
  await context.addCookies([{ name: 'gatepost-person', value: String(person), url: baseURL }]);
  const page = await context.newPage();
  errors.push(watchErrors(page));
  return page;
}
/** Maren, who owns the account, gives Tobias another role. */
async function give(role: string) {
  await maren.goto(`${MARKET}/account?setting=People`);
  const choice = maren.getByRole('combobox', { name: 'What Tobias Finch may do' });
  await choose(choice, role);
  await expect(maren.getByText(`Tobias Finch ${role}`)).toBeVisible();
  await expect(choice).toHaveText(role);
  // Only the settings scroll, whatever they hold.
  expect(await maren.evaluate(() => document.documentElement.scrollTop)).toBe(0);
}

/** Tobias stops the first term of the table, by its key. */
async function stopTheFirst() {
  await tobias.goto(`${MARKET}/sift`);
  const grid = tobias.getByRole('grid', { name: 'Search terms' });
  await expect(grid.locator('[role=row][aria-selected=true]')).toBeVisible();
  await grid.focus();
  await tobias.keyboard.press('Enter');
}

test.beforeAll(async ({ browser, baseURL }) => {
  maren = await pageOf(browser, MAREN, baseURL!);
  tobias = await pageOf(browser, TOBIAS, baseURL!);
});
test.afterEach(() => expect(errors.flat()).toEqual([]));
test.afterAll(async () => {
  await maren.context().close();
  await tobias.context().close();
});

test('who may prepare fills the tray, and looks it through; another sends it', async () => {
  await give('may prepare');
  await stopTheFirst();
  const tray = tobias.getByRole('region', { name: 'Tray' });
  await expect(tray.getByTestId('tray-count')).toHaveText(/1 change/);
  await tray.getByRole('button', { name: 'Look the tray through…' }).click();
  const page = tobias.getByRole('dialog');
  await expect(page.getByText(/You may not send it: .*Maren Oakes/)).toBeVisible();
  await expect(page.getByRole('button', { name: /Send/ })).toHaveCount(0);
  await expectAccessible(tobias);
  await tobias.keyboard.press('Escape');
  await maren.goto(`${MARKET}/sift`);
  await maren.getByRole('button', { name: 'Send the tray…' }).click();
  await expect(maren.getByRole('dialog').getByRole('button', { name: 'Send 1 change' })).toBeEnabled();
  await maren.keyboard.press('Escape');
  await tobias.keyboard.press('Control+z');
  await expect(tray.getByTestId('tray-count')).toHaveText('empty');
});

test('who may look decides nothing, and is told who may', async () => {
  await give('may look');
  await stopTheFirst();
  await expect(
    tobias.getByText(/Tobias Finch may look, and this asks for more\. Nothing was changed\./),
  ).toBeVisible();
  await expect(tobias.getByTestId('tray-count')).toHaveText('empty');
  await tobias.goto(`${MARKET}/account`);
  await expect(tobias.getByText(/To have it changed, ask .*Maren Oakes/)).toBeVisible();
  await expect(tobias.getByRole('textbox', { name: 'Days of the window' })).toBeDisabled();
  await expectAccessible(tobias);
});

test('what somebody saves as a file is noted for the owners', async () => {
  await tobias.goto(`${MARKET}/sift`);
  await tobias.getByRole('button', { name: 'Columns, and saving the table' }).click();
  const [file] = await Promise.all([
    tobias.waitForEvent('download'),
    tobias.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  await maren.goto(`${MARKET}/account?setting=Saved+files`);
  const newest = maren.getByRole('list', { name: 'Saved files' }).getByRole('listitem').first();
  await expect(newest).toContainText(`Tobias Finch${file.suggestedFilename()}`);
});

test('who has no role is led to an account of his own, and the role comes back', async () => {
  await give('is no longer here');
  await tobias.goto(`${MARKET}/sift`);
  await expect(tobias.getByRole('heading', { name: 'Not your account' })).toBeVisible();
  await expectAccessible(tobias);
  await tobias.getByRole('link', { name: /Web search/ }).press('Enter');
  await expect(tobias).toHaveURL(/larkfell-web\/today/);
  await give('owns the account');
  await tobias.goto(`${MARKET}/sift`);
  await expect(tobias.getByRole('button', { name: 'Send the tray…' })).toBeVisible();
});
