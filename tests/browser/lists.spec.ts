import { randomUUID } from 'node:crypto';
import { expect, test, type Page } from '@playwright/test';
import { choose, expectAccessible, watchErrors } from '../support/page';

/** Shared lists, as a person keeps them. One page, step after step. */
test.describe.configure({ mode: 'serial' });

const LISTS = '/larkfell-web/lists';
const API = '/api/larkfell-web';
let page: Page;
let errors: string[];

test.beforeAll(async ({ browser, baseURL }) => {
  page = await (await browser.newContext()).newPage();
  errors = watchErrors(page);
  // Whatever other tests left in the tray goes.
  const { changes } = (await (await page.request.get(`${API}/tray`)).json()) as { changes: { id: number }[] };
  if (changes.length > 0) {
    const data = { changeIds: changes.map((c) => c.id) };
    await page.request.delete(`${API}/tray`, { data, headers: { origin: baseURL! } });
  }
});
test.afterEach(() => expect(errors).toEqual([]));
test.afterAll(() => page.context().close());

const inHand = () => page.getByRole('region', { name: 'In hand' });
const tray = () => page.getByRole('region', { name: 'Tray' });
const cell = (name: string) => page.getByRole('gridcell', { name });
const listRow = (name: string) => page.getByRole('row', { name: new RegExp(`^${name}`) });
async function send(changes: number) {
  await tray().getByRole('button', { name: 'Send the tray…' }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Send \d/ })
    .click();
  await expect(page.getByTestId('sent-note')).toContainText(
    `${changes} of ${changes} ${changes === 1 ? 'change' : 'changes'} read back as sent`,
  );
}

test('the overview says of each list where it hangs and what it stopped', async () => {
  await page.goto(LISTS);
  await expect(listRow('Old imports 2023')).toContainText('nowhere');
  await expect(listRow('Work & careers')).toContainText(/\d+ campaigns/);
  await expectAccessible(page);
});

test('a list is made from pasted lines, and what is refused says why', async () => {
  await page.getByRole('button', { name: 'Paste lines' }).first().click();
  await page.getByLabel('Name of the new list').fill('Stage & screen');
  await page
    .getByLabel('Lines', { exact: true })
    .fill('1. "bee movie"\n• opera\n???\nOPERA\n[beekeeping certificate]');
  const plan = page.getByTestId('plan');
  await expect(plan).toContainText('Put 3 entries into Stage & screen: 4 changes.');
  await expect(page.getByTestId('refused')).toContainText('line 3: ??? A negative needs a word');
  await expect(plan).toContainText('1 line says what another line says');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Put in the tray', exact: true }).click();
  await expect(page.getByTestId('tray-count')).toHaveText('4 changes, not sent');
  await expect(listRow('Stage & screen')).toContainText('in the tray');
});

test('it is hung by rule, and one campaign is left out before it is put in', async () => {
  await listRow('Stage & screen').click();
  await inHand().getByRole('button', { name: 'Hang by rule' }).click();
  await inHand().getByLabel('whose name holds').fill('Hives');
  await expect(inHand()).toContainText('3 campaigns; on 3 campaigns it does not hang yet');
  await inHand().getByRole('checkbox', { name: 'Hives · Top bar' }).uncheck();
  await expect(inHand()).toContainText('2 campaigns; on 2 campaigns it does not hang yet');
  await expectAccessible(page);
  await inHand().getByRole('button', { name: 'Put in the tray' }).click();
  await expect(page.getByTestId('tray-count')).toHaveText('6 changes, not sent');
  await expect(inHand()).toContainText('it hangs on all live campaigns whose name holds “Hives”');
});

test('the grid shows what it would shut out before it is hung there', async () => {
  await page.getByRole('tab', { name: 'Coverage' }).click();
  await expect(cell('Stage & screen on Starter: hangs with the tray')).toBeVisible();
  await cell('Stage & screen on General: open; hung, it would touch a live keyword').click();
  await expect(page.getByTestId('cell')).toContainText('Does not hang here. It would stop');
  await expect(page.getByTestId('cell')).toContainText(
    '1 live keyword shut out: “beekeeping certificate” (exact)',
  );
  await expectAccessible(page);
});

test('by keyboard a row is marked, hung where it hurts nothing, and taken back', async () => {
  const grid = page.getByRole('grid', { name: 'Where each list hangs' });
  await cell('Recipes on Starter: open').click();
  await grid.press('Shift+ArrowRight');
  await expect(page.getByTestId('hangings')).toContainText('Would stop');
  await grid.press('Enter');
  await expect(page.getByTestId('tray-count')).toHaveText('8 changes, not sent');
  await expect(cell('Recipes on Starter North: hangs with the tray')).toBeVisible();
  await grid.press('Control+z');
  await expect(page.getByTestId('tray-count')).toHaveText('6 changes, not sent');
  await grid.press(' ');
  await expect(inHand()).toContainText(/Recipes → \d+ campaigns/);
});

test('campaigns fold by the parts of their names, and filters say what is shown', async () => {
  await page.getByRole('button', { name: '▾ Hives' }).click();
  await expect(cell('Leisure & media on Hives: hung, 3/3')).toBeVisible();
  await page.getByRole('button', { name: '▸' }).click();
  await choose(page.getByLabel('Channel'), 'display');
  await expect(page.getByTestId('campaigns-shown')).toHaveText('1 campaign');
  await expect(page).toHaveURL(/channel=display/);
  await choose(page.getByLabel('Channel'), 'channels');
});

test('one campaign is pulled out again, and the rule lets it be', async () => {
  await cell('Stage & screen on Starter North: hangs with the tray').click();
  await inHand()
    .getByRole('button', { name: /^Take down here/ })
    .click();
  await expect(page.getByTestId('tray-count')).toHaveText('5 changes, not sent');
  await inHand().getByRole('button', { name: 'Leave this campaign out' }).click();
  await expect(inHand()).toContainText('Left out of the rule');
});

test('it is sent and read back, and its history says so', async () => {
  await send(5);
  await page.getByRole('tab', { name: 'Overview' }).click();
  await expect(listRow('Stage & screen')).toContainText('1 campaign');
  await listRow('Stage & screen').click();
  await inHand().getByRole('button', { name: 'History' }).click();
  await expect(page.getByTestId('history')).toContainText('made; added “bee movie” (phrase)');
});

test('entries say where they came from; changing one names every campaign that it reaches', async () => {
  await inHand().getByRole('button', { name: 'Back' }).click();
  await inHand()
    .getByRole('button', { name: /^Open its entries/ })
    .click();
  const grid = page.getByRole('grid', { name: 'Entries of the list' });
  await expect(page.getByTestId('entries-shown')).toContainText('3 entries');
  await grid.focus();
  await grid.press('End');
  await expect(inHand()).toContainText('by Maren Oakes');
  await expect(inHand()).toContainText('Reaches 1 campaign: Hives · Starter');
  await grid.press('Control+a');
  await choose(inHand().getByLabel('Make them'), 'phrase');
  await expect(page.getByTestId('plan')).toContainText('Make 1 entry of Stage & screen phrase: 2 changes.');
  await expectAccessible(page);
  await inHand().getByRole('button', { name: 'Leave it' }).click();
});

test('singles become a list, with the proof that no gate answers otherwise', async () => {
  await page.getByRole('tab', { name: /^Could be a list 1/ }).click();
  await expect(page.getByTestId('proof')).toContainText('Proved: no gate answers otherwise');
  await inHand().getByLabel('Name of the list').fill('Crafts');
  await expect(page.getByTestId('plan')).toContainText('into the list Crafts: 36 changes.');
  await expectAccessible(page);
  await inHand().getByRole('button', { name: 'Put in the tray', exact: true }).click();
  await expect(page.getByRole('tab', { name: /^Could be a list 0/ })).toBeVisible();
  await send(36);
  await page.goto(`${LISTS}?show=overview`);
  await expect(listRow('Crafts')).toContainText('5 campaigns');
});

test('account-wide negatives can be a list that hangs on the whole account', async () => {
  await page.getByRole('tab', { name: /^Account-wide/ }).click();
  await page
    .getByRole('row', { name: /^Mark documentary/ })
    .getByRole('button', { name: 'Mark' })
    .click();
  await expect(page.getByTestId('proof')).toContainText('Proved');
  await expectAccessible(page);
  await inHand().getByRole('button', { name: 'Leave it' }).click();
});

test('what somebody else changes on the platform is shown, and undone', async () => {
  const platform = `${process.env.GATEPOST_TEST_PLATFORM_URL}/accounts/larkfell-web`;
  const { lists } = (await (await page.request.get(`${platform}/structure`)).json()) as {
    lists: { id: string; name: string }[];
  };
  const place = { kind: 'list', id: lists.find((l) => l.name === 'Recipes')!.id };
  const change = { kind: 'remove negative', text: 'recipe', match: 'broad', place };
  await page.request.post(`${platform}/changes`, { data: { changes: [{ key: randomUUID(), change }] } });
  await page.goto(`${LISTS}?show=elsewhere`);
  await page.getByRole('button', { name: 'Fetch report' }).click();
  const waiting = page.getByRole('list', { name: 'Changed elsewhere' });
  await expect(waiting).toContainText('removed “recipe” (broad)');
  await expectAccessible(page);
  await waiting.getByRole('button', { name: 'Undo…' }).click();
  await expect(page.getByTestId('plan')).toContainText(
    'Take back what somebody else changed in Recipes: 1 change.',
  );
  await inHand().getByRole('button', { name: 'Put in the tray', exact: true }).click();
  await expect(page.getByRole('tab', { name: 'Changed elsewhere 0' })).toBeVisible();
  await send(1);
});

test('placements are pasted, cleaned and folded', async () => {
  await page.goto(`${LISTS}?show=coverage`);
  await page.getByRole('button', { name: 'Paste lines' }).click();
  await page.getByLabel('Name of the new list').fill('Noisy sites');
  await choose(page.getByLabel('What it holds'), 'placements');
  await page
    .getByLabel('Lines', { exact: true })
    .fill('https://www.Films.example/\nold.films.example/clips\nno address');
  await expect(page.getByTestId('plan')).toContainText('Put 1 placement into Noisy sites');
  await expect(page.getByTestId('plan')).toContainText('1 address lies below another and is left out');
  await page.getByRole('dialog').getByRole('button', { name: 'Leave it' }).click();
});

test('in the dark it is as readable', async () => {
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.goto(`${LISTS}?show=coverage`);
  await expect(cell('Leisure & media on Starter: hung')).toBeVisible();
  await expectAccessible(page);
});
