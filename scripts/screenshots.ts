import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { chromium, type Page } from '@playwright/test';
import playwright from '../playwright.config';
import { withFreshDemo } from './steps/fresh-demo';
import { step } from './steps/say';
import { readSettings } from './steps/settings';

/**
 * `npm run screenshots`: a picture of each main view, from a demo of its own, into docs/screenshots.
 * `-- --of=ADDRESS` takes them of a demo that runs there, and leaves its changes behind; `--only=rules,today` takes some.
 */
async function main(args: readonly string[]): Promise<void> {
  const valueOf = (flag: string) => args.find((arg) => arg.startsWith(flag))?.slice(flag.length);
  const running = valueOf('--of=');
  const only = valueOf('--only=')?.split(',');
  const some = Object.fromEntries(
    Object.entries(VIEWS).filter(([name]) => only === undefined || only.includes(name)),
  );
  if (running) await takeAll(running, some);
  else {
    await withFreshDemo(readSettings('test'), { scale: 1, hasPast: true }, (address) =>
      takeAll(address, some),
    );
    if (only !== undefined) return;
    await withFreshDemo(readSettings('test'), null, (address) => takeAll(address, WITHOUT_DEMO));
  }
}

async function takeAll(address: string, views: Views): Promise<void> {
  const folder = path.resolve(import.meta.dirname, '../docs/screenshots');
  mkdirSync(folder, { recursive: true });
  const browser = await chromium.launch(playwright.use!.launchOptions);
  try {
    const context = await browser.newContext({
      baseURL: address,
      viewport: { width: 1280, height: 800 },
      reducedMotion: 'reduce',
    });
    const page = await context.newPage();
    for (const [name, prepare] of Object.entries(views)) {
      step(`Taking ${name}`);
      await prepare(page);
      await page.waitForTimeout(400); // what fades is gone, what is fetched is there
      await page.screenshot({ path: path.join(folder, `${name}.png`) });
    }
  } finally {
    await browser.close();
  }
}

const WEB = '/larkfell-web';
const REPORT = [
  'Larkfell, October 2026',
  'Day;Search term;Campaign;Ad group;Clicks;Impr.;Cost;Orders;CTR',
  '31.10.2026;bee hive colouring pages;Hives · Starter;Complete hives;14;402;9,80;0;3,5 %',
  '31.10.2026;langstroth hive kit;Hives · Starter;Complete hives;22;310;15,40;2;7,1 %',
  '30.10.2026;beekeeper costume adults;Clothing · Suits;Full suits;31;655;21,70;0;4,7 %',
  '30.10.2026;bee suit size 8;Clothing · Suits;Full suits;9;120;6,30;1;7,5 %',
  '30.10.2026;bee smoker fuel;Tools · Smokers;Smokers;n/a;88;2,10;0;–',
  '29.10.2026;bee keeping jobs scotland;Courses;Beginner courses;17;390;11,05;0;4,4 %',
  'Total;;;;93;1965;66,35;3;',
].join('\n');

type Views = Record<string, (page: Page) => Promise<void>>;

/** In this order: a later view shows what an earlier one did. */
const VIEWS: Views = {
  async intake(page) {
    await page.goto(`${WEB}/intake`);
    await page
      .getByLabel('Report files')
      .setInputFiles({ name: 'october.csv', mimeType: 'text/csv', buffer: Buffer.from(REPORT) });
    await page.getByTestId('sum-cost').waitFor();
  },
  async sift(page) {
    for (const [word, place] of [
      ['tattoo', 'campaign'],
      ['drawing', 'Pictures'],
    ] as const) {
      await page.goto(`${WEB}/sift?holding=${word}`);
      await page.getByRole('button', { name: /^Place: / }).click(); // the word is chosen already
      await page.locator('[cmdk-item]').filter({ hasText: place }).first().click();
      await page.locator('#terms').press('Enter');
      await page.getByTestId('count-stopped').getByText(/[1-9]/).waitFor();
    }
    await page.goto(`${WEB}/sift`);
    await chooseLastWord(page);
  },
  async 'words-at-fault'(page) {
    await page.goto(`${WEB}/sift`);
    await page.locator('[data-ngram="0"]').click();
    await page.locator('[aria-selected=true] [data-word]').first().waitFor();
    await page.getByRole('button', { name: 'at fault?' }).click();
    await page.getByText('would have brought').last().waitFor();
  },
  async 'sift-pass'(page) {
    await page.goto(`${WEB}/sift?show=pass`);
    await page.locator('#pass').press('ArrowDown');
    await page.getByText('would have brought').last().waitFor();
  },
  async lists(page) {
    await page.goto(`${WEB}/lists`);
    await page.getByRole('row', { name: /^Work & careers/ }).click();
    await page.getByTestId('list-in-hand').getByText('saved in').waitFor();
  },
  async coverage(page) {
    await page.goto(`${WEB}/lists?show=coverage`);
    await page.getByRole('gridcell', { name: 'Pests & pesticides on Health · Varroa: open' }).click();
    await page.getByRole('button', { name: /^Hang here/ }).click();
    await page
      .getByRole('gridcell', { name: 'Work & careers on General: hung, touches a live keyword' })
      .click();
    await page.getByText('1 entry hurts here').waitFor();
    await page.locator('[data-sonner-toast]').waitFor({ state: 'detached', timeout: 30_000 }); // it lies over the legend
  },
  async 'send-the-tray'(page) {
    await askForSecondLook(page);
    await page.getByRole('button', { name: 'Send the tray…' }).click();
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /^Yes to/ })
      .waitFor();
  },
  async research(page) {
    await page.getByRole('button', { name: /^Yes to/ }).click();
    await page.getByRole('button', { name: /^Send \d/ }).click();
    await page.getByTestId('sent-note').getByText('read back as sent').waitFor({ timeout: 60_000 });
    await page.goto(`${WEB}/research`);
    await page
      .getByRole('grid', { name: 'Remainders' })
      .getByRole('row', { name: /^Mark cake / })
      .click();
    await page
      .getByRole('region', { name: 'In hand' })
      .getByText(/Safe|live keyword/)
      .first()
      .waitFor();
  },
  async untangle(page) {
    await page.goto(`${WEB}/untangle`);
    await page.getByRole('region', { name: 'Mends' }).getByText('proposed').waitFor();
  },
  async promote(page) {
    await page.goto(`${WEB}/promote`);
    const row = page
      .getByRole('grid', { name: 'Terms to promote' })
      .getByRole('row', { name: /3 \+ 3/ })
      .first();
    await row.getByRole('gridcell').nth(2).click();
    await page.getByText(/^Makes 3 keywords/).waitFor();
  },
  async lanes(page) {
    await page.goto(`${WEB}/lanes`);
    await page.getByRole('region', { name: 'In hand' }).getByText('by the plan it is for').waitFor();
  },
  /** the threshold that most people know, tried on the past, before it may act by itself */
  async rules(page) {
    await page.goto(`${WEB}/rules?shown=rules&begin=`);
    await page.getByRole('table', { name: 'Neighbouring thresholds' }).waitFor();
    await page.getByRole('combobox', { name: 'After a yes or by itself' }).click();
    await page.getByRole('option', { name: 'by itself' }).click();
  },
  async findings(page) {
    await page.goto(`${WEB}/rules`);
    await page.getByRole('region', { name: 'In hand' }).getByText('found it on').waitFor();
  },
  async 'gate-check'(page) {
    await page.goto(`${WEB}/gate?query=bee+hive+cartoon`);
    await page.getByTestId('gate-answer').waitFor();
  },
  async ledger(page) {
    await page.goto(`${WEB}/ledger?find=jobs`);
    await page
      .getByRole('row', { name: /Stop “jobs”/ })
      .first()
      .click();
    await page.getByText('days since').first().waitFor();
    await page.getByTestId('saved').waitFor();
  },
  async today(page) {
    await page.goto(`${WEB}/today?days=60`);
    await page.getByTestId('today-saved').waitFor();
    await page.getByText('Next, by what it is worth').waitFor();
    await page.getByRole('link', { name: /at fault/ }).waitFor();
    await page.getByText('New terms that cost').waitFor();
  },
  async 'for-client'(page) {
    await page.goto(`${WEB}/today/for-client?days=60`);
    await page.getByRole('region', { name: 'What stays open' }).waitFor();
  },
  async account(page) {
    await page.goto(`${WEB}/account?setting=People`);
    await page.getByRole('list', { name: 'People' }).waitFor();
  },
};

/** The account asks for a second look, and another person puts the tray up for it. */
async function askForSecondLook(page: Page): Promise<void> {
  const headers = { origin: new URL(page.url()).origin };
  const put = (path: string, data: object, person: number) =>
    page.request.put(`/api${WEB}/${path}`, {
      ...{ data, headers: { ...headers, cookie: `gatepost-person=${person}` } },
    });
  await put('account/second-look', { always: false, changes: 1, costMicros: null, people: [] }, 1);
  await put('tray/second-look', { note: 'Do the pesticides hurt Varroa?' }, 2);
  await page.reload();
}

/** On an empty database: the first person sets a password and signs out. */
const WITHOUT_DEMO: Views = {
  async 'sign-in'(page) {
    await page.goto('/');
    await page.getByLabel('Your name').fill('Maren Oakes');
    await page.getByLabel('Name of the account').fill('Larkfell');
    await page.getByLabel('Target CPA').fill('18');
    await page.keyboard.press('Enter');
    await page.waitForURL(/intake/);
    await page.goto('/larkfell/account?setting=People');
    await page.getByRole('button', { name: 'Link for Maren Oakes' }).click();
    await page.goto(await page.getByRole('textbox', { name: 'The link' }).inputValue());
    await page.getByLabel('E-mail').fill('maren@larkfell.example');
    await page.getByLabel(/^Password/).fill('seven hives in a row');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'You are Maren Oakes' }).click();
    await page.getByRole('menuitem', { name: 'Sign out', exact: true }).click();
    await page.getByLabel('E-mail').waitFor();
  },
};

async function chooseLastWord(page: Page): Promise<void> {
  const words = page.locator('[aria-selected=true] [data-word]');
  await words.first().waitFor();
  await page.locator('#terms').press(String(await words.count()));
  await page.getByTestId('consequence').waitFor();
}

main(process.argv.slice(2)).catch((error: unknown) => {
  console.error(error);
  process.exitCode = 1;
});
