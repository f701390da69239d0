import { expect, test, type Browser, type Page } from '@playwright/test';
import { choose, expectAccessible, watchErrors } from '../support/page';
import { codeOf } from '../support/totp';

/** From one person who works alone to two who sign in. */
test.describe.configure({ mode: 'serial' });

let maren: Page;
let petra: Page;
/** what a program for codes is given of Petra's second factor */
let factor: string;
const errors: string[][] = [];
const MAREN = { email: 'maren@larkfell.example', password: 'seven hives in a row' };
const PETRA = { email: 'petra@larkfell.example', password: 'smoke calms the bees' };

async function pageOf(browser: Browser): Promise<Page> {
  const page = await (await browser.newContext()).newPage();
  errors.push(watchErrors(page));
  return page;
}
/** The owner makes a link for a person, and it is opened in a browser. */
async function openLink(name: string, page: Page) {
  await maren.getByRole('button', { name: `Link for ${name}` }).click();
  const address = await maren.getByRole('textbox', { name: 'The link' }).inputValue();
  await maren.keyboard.press('Escape');
  await page.goto(address);
}
async function setPassword(page: Page, { email, password }: typeof MAREN) {
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel(/^Password/).fill(password);
  await expectAccessible(page);
  await page.keyboard.press('Enter');
}

test.beforeAll(async ({ browser }) => {
  [maren, petra] = [await pageOf(browser), await pageOf(browser)];
});
test.afterEach(() => expect(errors.flat()).toEqual([]));
test.afterAll(async () => {
  await maren.context().close();
  await petra.context().close();
});

test('one person alone needs no password, and sets one before another comes', async () => {
  await maren.goto('/');
  await maren.getByLabel('Your name').fill('Maren Oakes');
  await maren.getByLabel('Name of the account').fill('Larkfell');
  await maren.getByLabel('Target CPA').fill('18');
  await maren.keyboard.press('Enter');
  await expect(maren).toHaveURL(/larkfell\/intake/);
  await maren.goto('/larkfell/account?setting=People');
  await maren.getByLabel('Add', { exact: true }).fill('Petra Holm');
  await maren.keyboard.press('Enter');
  await expect(maren.getByText(/From two people on everybody signs in/)).toBeVisible();
  await openLink('Maren Oakes', maren);
  await setPassword(maren, MAREN);
  await expect(maren).toHaveURL(/larkfell\/today/);
  await expect(maren.getByRole('button', { name: 'You are Maren Oakes' })).toBeVisible();
});

test('a stranger sees the page to sign in, and nothing else', async () => {
  await petra.goto('/larkfell/sift');
  await expect(petra.getByRole('heading', { name: 'Sign in', exact: true })).toBeVisible();
  await expectAccessible(petra);
  await petra.getByLabel('E-mail').fill(MAREN.email);
  await petra.getByLabel('Password').fill('something else');
  await petra.keyboard.press('Enter');
  await expect(petra.getByText('This address and this password do not belong together.')).toBeVisible();
  await expect(petra.getByLabel('Password')).toBeFocused();
});

test('who is invited sets a password, and acts by role', async () => {
  await maren.goto('/larkfell/account?setting=People');
  await choose(maren.getByRole('combobox', { name: 'What who is added may do' }), 'may look');
  await maren.getByLabel('Add', { exact: true }).fill('Petra Holm');
  await maren.keyboard.press('Enter');
  await openLink('Petra Holm', petra);
  await setPassword(petra, PETRA);
  await expect(petra.getByRole('button', { name: 'You are Petra Holm, may look' })).toBeVisible();
  await petra.goto('/larkfell/account');
  await expect(petra.getByText('To have it changed, ask Maren Oakes.')).toBeVisible();
});

test('signing out leads to the page to sign in, and back in by keys alone', async () => {
  await petra.getByRole('button', { name: /^You are Petra Holm/ }).press('Enter');
  await petra.keyboard.press('ArrowDown');
  await petra.keyboard.press('Enter');
  await expect(petra.getByRole('heading', { name: 'Sign in', exact: true })).toBeVisible();
  await petra.goto('/larkfell/sift');
  await expect(petra.getByRole('heading', { name: 'Sign in', exact: true })).toBeVisible();
  await petra.keyboard.type(PETRA.email);
  await petra.keyboard.press('Tab');
  await petra.keyboard.type(PETRA.password);
  await petra.keyboard.press('Enter');
  await expect(petra).toHaveURL(/larkfell\/sift/);
});

test('a second factor is set up by oneself, and asked for from then on', async () => {
  await petra.getByRole('button', { name: /^You are Petra Holm/ }).press('Enter');
  await petra.getByRole('menuitem', { name: 'How you sign in' }).click();
  await expect(petra.getByRole('list', { name: 'Sessions' })).toContainText('this one');
  await petra.getByLabel('Your password').fill(PETRA.password);
  await petra.keyboard.press('Enter');
  await expect(petra.getByRole('list', { name: 'Spare codes' }).getByRole('listitem')).toHaveCount(10);
  await expectAccessible(petra);
  factor = `otpauth://totp/it?secret=${await petra.getByText('Key:').locator('code').innerText()}`;
  await petra.getByLabel('The six digits that it shows').fill(codeOf(factor));
  await petra.keyboard.press('Enter');
  await expect(petra.getByText('Signing in asks for a code of your second factor.')).toBeVisible();
});

test('a session that has ended leads to the page to sign in, and from there back', async () => {
  await petra.goto('/larkfell/sift');
  await petra.context().clearCookies();
  await expect(petra.getByRole('heading', { name: 'Sign in', exact: true })).toBeVisible();
  await petra.getByLabel('E-mail').fill(PETRA.email);
  await petra.getByLabel('Password').fill(PETRA.password);
  await petra.keyboard.press('Enter');
  await petra.getByLabel(/six digits/).fill(codeOf(factor));
  await expectAccessible(petra);
  await petra.keyboard.press('Enter');
  await expect(petra).toHaveURL(/larkfell\/sift/);
});

test('the owner reads who signed in', async () => {
  await maren.goto('/larkfell/account');
  await expect(maren.getByRole('list', { name: 'Sign-ins' })).toContainText('Petra Holmsigned in');
});
