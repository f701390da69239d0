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

/** Puts a stop in the tray that stops nothing which is there. */
async function stopNothing(page: Page, text: string) {
  const change = { kind: 'add negative', text, match: 'exact', place: { kind: 'account', id: null } };
  const answer = await page.evaluate(
    async (body) => {
      const headers = { 'content-type': 'application/json' };
      return (await fetch('/api/larkfell-market/tray', { method: 'POST', headers, body })).status;
    },
    JSON.stringify({ changes: [{ change }] }),
  );
  expect(answer).toBe(200);
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

test('a tray is put up by one, looked through by another, and sent', async () => {
  await maren.goto(`${MARKET}/account?setting=Second+look`);
  await maren.getByLabel('Another person looks at every tray').check();
  await maren.getByRole('button', { name: 'Set: Second look' }).click();
  await expect(maren.getByText('A second look: each time')).toBeVisible();
  await tobias.goto(`${MARKET}/sift`);
  await stopNothing(tobias, 'okapi lamp black');
  await tobias.reload();
  await tobias.getByRole('button', { name: 'Look the tray through…' }).click();
  await tobias.getByRole('textbox', { name: 'What to look at' }).fill('is it meant so?');
  await tobias.keyboard.press('Enter');
  await expect(tobias.getByText(/You put it up on/)).toBeVisible();
  await expect(tobias.getByText(/Maren Oakes.* may say yes\./)).toBeVisible();
  await expectAccessible(tobias);

  await maren.goto(`${MARKET}/sift`);
  await expect(maren.getByText('Tobias Finch put it up for a second look. It waits for you.')).toBeVisible();
  await maren.getByRole('button', { name: 'Send the tray…' }).click();
  const page = maren.getByRole('dialog');
  await expect(page.getByText('is it meant so?')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Send 1 change' })).toBeDisabled();
  await expectAccessible(maren);
  await page.getByRole('button', { name: 'Yes to 1 change' }).click();
  await expect(page.getByText(/You said yes on/)).toBeVisible();
  await expect(tobias.getByText(/Maren Oakes said yes on/)).toBeVisible();

  await stopNothing(tobias, 'okapi lamp grey');
  await expect(page.getByText(/1 change came or changed since/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Send 2 changes' })).toBeDisabled();
  await page.getByRole('button', { name: 'Yes to 2 changes' }).click();
  await page.getByRole('button', { name: 'Send 2 changes' }).click();
  await expect(maren.getByTestId('tray-count')).toHaveText('empty');
  await maren.goto(`${MARKET}/ledger`);
  await expect(
    maren.getByText('Yes to 2 changes of the tray that Tobias Finch put up').first(),
  ).toBeVisible();

  await maren.goto(`${MARKET}/account?setting=Second+look`);
  await maren.getByLabel('Another person looks at every tray').uncheck();
  await maren.getByRole('button', { name: 'Set: Second look' }).click();
  await expect(maren.getByText('A second look: never asked for')).toBeVisible();
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
