import { expect, test, type Page } from '@playwright/test';
import type { Settings } from '../../scripts/steps/settings';
import type { Received } from '../../src/standins/inbox/page';
import { expectAccessible, watchErrors } from '../support/page';

/** Somebody is told by mail and by a web hook of what comes up; by keyboard alone. */
test.describe.configure({ mode: 'serial' });
const ACCOUNT = '/larkfell-market';
const { inboxPort } = JSON.parse(process.env.GATEPOST_TEST_SETTINGS ?? '{}') as Settings;
const INBOX = `http://127.0.0.1:${inboxPort}`;

let page: Page;
let errors: string[];
const targets = () => page.getByRole('list', { name: 'Who is told' }).getByRole('listitem');

async function press(name: string | RegExp) {
  const button = page.getByRole('button', { name });
  await expect(button).toBeEnabled();
  await button.focus();
  await page.keyboard.press('Enter');
}
async function ask(method: 'post' | 'put' | 'delete', path: string, data?: object) {
  const headers = { origin: new URL(page.url()).origin };
  const answer = await page.request[method](`/api${ACCOUNT}/${path}`, { headers, data });
  expect(answer.status()).toBe(200);
  return (await answer.json()) as { ruleId: number };
}
async function received(): Promise<Received[]> {
  return ((await (await page.request.get(`${INBOX}/received`)).json()) as { received: Received[] }).received;
}

test.beforeAll(async ({ browser }) => {
  page = await (await browser.newContext()).newPage();
  errors = watchErrors(page);
  await page.request.delete(`${INBOX}/received`);
  await page.goto(`${ACCOUNT}/account?setting=Alerts`);
});
test.afterAll(async () => {
  expect(errors).toEqual([]);
  await page.close();
});

test('an address is told by mail, and a hook gets a secret', async () => {
  await press('Tell somebody');
  await expect(page.getByRole('textbox', { name: 'Address' })).toBeFocused();
  await page.keyboard.type('maren@larkfell.example');
  await page.keyboard.press('Enter');
  await expect(targets()).toHaveText([/by mail to maren@larkfell\.example: everything, at once/]);
  await expect(page.getByRole('textbox', { name: 'Address' })).toBeHidden();
  await expect(page.getByRole('button', { name: 'Tell somebody' })).toBeFocused();
  await page.keyboard.press('Enter');
  await page.getByRole('combobox', { name: 'By mail or by a web hook' }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.type('by a web');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Address' }).focus();
  await page.keyboard.type(`${INBOX}/hooks/team`);
  await page.keyboard.press('Enter');
  await expect(targets()).toHaveCount(2);
  await expect(page.getByText('told this once')).toBeVisible();
  await expectAccessible(page);
});

test('a rule that only tells is told of by both, and what was sent says so', async () => {
  const rule = {
    when: [{ of: 'clicks', is: 'at least', value: 10 }],
    ...{ lookBack: { days: 60, lagDays: 2 }, where: { is: 'everywhere', campaigns: [] } },
    ...{ then: { do: 'tell' }, how: { is: 'by approval' }, often: 'after each report' },
  };
  const { ruleId } = await ask('post', 'rules', { name: 'Ten clicks', rule, state: 'on' });
  const said = expect.stringMatching(/The rule “Ten clicks” found \d+ terms?/u);
  await expect
    .poll(async () => (await received()).map(({ by }) => by).sort(), { timeout: 120_000 })
    .toEqual(['hook', 'mail']);
  const [one, other] = (await received()).sort((a, b) => a.by.localeCompare(b.by));
  expect(one).toMatchObject({ path: '/hooks/team', body: { alerts: [{ kind: 'rule', says: said }] } });
  expect(other).toMatchObject({ to: 'maren@larkfell.example', subject: said });
  await page.goto(INBOX);
  await expect(page.getByRole('heading', { level: 2 })).toHaveCount(2);
  await page.goto(`${ACCOUNT}/account?setting=Alerts`);
  await expect(
    page.getByRole('list', { name: 'What was sent' }).getByText(/The rule “Ten clicks”/),
  ).toHaveCount(2);
  await page.getByRole('link', { name: /^The rule “Ten clicks” found/ }).focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(new RegExp(`${ACCOUNT}/rules`));
  await ask('put', 'rules/states', { rules: [{ id: ruleId, state: 'off' }] });
});

test('nobody is told any more, and the undo tells again', async () => {
  await page.goto(`${ACCOUNT}/account?setting=Alerts`);
  await press('Tell no more: maren@larkfell.example');
  await expect(targets()).toHaveCount(1);
  await expect(page.getByRole('button', { name: 'Tell somebody' })).toBeFocused();
  await page.keyboard.press('Control+z');
  await expect(targets()).toHaveCount(2);
  await press('Tell no more: maren@larkfell.example');
  await expect(targets()).toHaveCount(1);
  await press(/^Tell no more: http/);
  await expect(page.getByText('Nobody is told yet.')).toBeVisible();
});
