import { request as send, type ClientRequest } from 'node:http';
import { expect, test, type APIRequestContext } from '@playwright/test';
import { randomLcg } from 'd3';
import pg from 'pg';
import { databaseUrl, type Settings } from '../../scripts/steps/settings';
import { toNumber } from '../support/page';
import { NAMES, startCluster, type Cluster, type Name } from './cluster';

/** Several web and job processes on one database: any of them may die at any moment, and nothing is lost or done twice. */
test.describe.configure({ mode: 'serial' });

const settings = JSON.parse(process.env.GATEPOST_TEST_SETTINGS ?? '{}') as Settings;
const BASE = `http://127.0.0.1:${settings.webPort}`;
const ACCOUNT = 'larkfell-web';
let cluster: Cluster;
let db: pg.Client;

test.beforeAll(async () => {
  cluster = await startCluster(settings);
  db = new pg.Client({ connectionString: databaseUrl(settings) });
  await db.connect();
});
test.afterAll(async () => {
  await db.end();
  await cluster.stop();
});

const rows = async <Row>(sql: string, values: unknown[] = []) =>
  (await db.query(sql, values)).rows as unknown as Row[];

async function killAndStart(name: Name) {
  await cluster.kill(name);
  await cluster.start(name);
}

/** Asks until someone answers: while a web process dies, a request of its may be lost. */
async function ask(request: APIRequestContext, method: string, path: string, data?: unknown) {
  const headers = { origin: BASE, 'content-type': 'application/json' };
  for (;;) {
    const answer = await request
      .fetch(`${BASE}/api/${ACCOUNT}/${path}`, { method, headers, data: data as object })
      .catch(() => null);
    if (answer && answer.status() < 500) return answer;
  }
}

const WAITS = 'decided, waits for the connection';

test('decisions that are made while web processes die are in the tray, each once', async ({ page }) => {
  await page.goto(`${BASE}/${ACCOUNT}/sift?returns=none`);
  const grid = page.getByRole('grid', { name: 'Search terms' });
  const inHand = grid.locator('[role=row][aria-selected=true]');
  await grid.focus();
  await expect(inHand).toBeVisible();
  const stopped: string[] = [];
  const textInHand = () => inHand.locator('[data-raw]').getAttribute('data-raw');
  const isMarked = async (mark: string) => (await inHand.getByRole('img', { name: mark }).count()) > 0;
  const goOn = async () => {
    const text = await textInHand();
    await page.keyboard.press('ArrowDown');
    await expect.poll(textInHand).not.toBe(text);
  };
  const stopSome = async (times: number) => {
    for (let i = 0; i < times; i++) {
      while (await isMarked('protected')) await goOn();
      const text = (await textInHand())!;
      await page.keyboard.press('w');
      stopped.push(text);
      // The row is gone, or stays and says that it waits.
      await expect.poll(async () => (await textInHand()) !== text || (await isMarked(WAITS))).toBe(true);
      if (await isMarked(WAITS)) await goOn();
    }
  };
  await stopSome(3);
  await cluster.kill('web 1');
  await stopSome(4);
  await cluster.start('web 1');
  await cluster.kill('web 2');
  await stopSome(4);
  await cluster.kill('web 1'); // now nobody answers: what is in hand can be decided, the next term is not shown
  await stopSome(1);
  await expect(page.getByText(/decisions? (is|are) kept in this browser/)).toBeVisible();
  await Promise.all([cluster.start('web 1'), cluster.start('web 2')]);
  await stopSome(1);
  await expect(page.getByTestId('tray-count')).toHaveText(`${stopped.length} changes, not sent`);
  await expect(page.getByText(/kept in this browser/)).toHaveCount(0);
  const drafted = await rows<{ text: string }>(
    `select body ->> 'text' as text from change join change_set using (account_id, change_set_id) where change_set.state = 'draft'`,
  );
  expect(drafted.map(({ text }) => text).sort()).toEqual(stopped.map((text) => text.toLowerCase()).sort());
});

test('a tray that is sent while job processes die arrives, each change once', async ({ request }) => {
  const drafted = await rows<{ text: string }>(
    `select body ->> 'text' as text from change join change_set using (account_id, change_set_id) where change_set.state = 'draft'`,
  );
  const sent = await ask(request, 'POST', 'tray/send', {});
  expect(sent.status()).toBe(200);
  for (const name of ['jobs 1', 'jobs 2', 'jobs 3', 'jobs 1', 'jobs 2'] as const) await killAndStart(name);
  const states = () => rows<{ state: string }>(`select state from change_set order by change_set_id`);
  await expect.poll(async () => (await states())[0]!.state, { timeout: 120_000 }).toBe('confirmed');
  const there = await rows<{ n: string }>(
    `select count(*) as n from standin.negative where body ->> 'text' = any($1)`,
    [drafted.map(({ text }) => text)],
  );
  expect(Number(there[0]!.n)).toBe(drafted.length);
});

test('files that are loaded while any process dies are loaded, each row once', async ({ request }) => {
  const days = ['05', '06', '07', '08', '09'];
  const report = (day: string) =>
    Buffer.from(
      [
        'Day,Campaign,Ad group,Search term,Clicks,Cost',
        ...Array.from({ length: 12_000 }, (_, i) => `2024-02-${day},Old hives,Old,relic hive ${i},1,0.10`),
      ].join('\n'),
    );
  const loads: number[] = [];
  for (const [i, day] of days.entries()) {
    const name = `relics ${day}.csv`;
    const bytes = report(day);
    const brought = await upload(name, bytes).catch(() => upload(name, bytes));
    loads.push(brought);
    await ask(request, 'POST', `intake/${brought}/load`, {});
    await killAndStart(NAMES[i]!);
  }
  for (const name of ['jobs 1', 'jobs 2', 'jobs 3'] as const) await killAndStart(name);
  const states = () =>
    rows<{ state: string }>(`select distinct state from report_file where report_file_id = any($1)`, [loads]);
  await expect.poll(states, { timeout: 150_000 }).toEqual([{ state: 'loaded' }]);
  const facts = await rows<{ facts: string; clicks: string }>(
    `select count(*) as facts, sum(clicks) as clicks from term_day where day between '2024-02-01' and '2024-02-28'`,
  );
  expect(facts).toEqual([{ facts: '60000', clicks: '60000' }]);
});

test('whatever dies at random while trays are sent, each change arrives once', async ({ request }) => {
  const rounds = Number(process.env.GATEPOST_KILLS ?? 5);
  const seed = Number(process.env.GATEPOST_KILLS_SEED ?? Date.now() % 1_000_000);
  console.log(`${rounds} random kills; GATEPOST_KILLS_SEED=${seed} does the same again`);
  test.setTimeout(60_000 + 30_000 * rounds);
  const draw = randomLcg(seed);
  const texts: string[] = [];
  for (let round = 0; round < rounds; round++) {
    const text = `kestrel lamp ${seed} ${round}`;
    const change = { kind: 'add negative', text, match: 'exact', place: { kind: 'account', id: null } };
    await ask(request, 'POST', 'tray', { changes: [{ change }] });
    const sent = ask(request, 'POST', 'tray/send', {});
    const victim = VICTIMS[Math.floor(draw() * VICTIMS.length)]!;
    await new Promise((resolve) => setTimeout(resolve, draw() * LONGEST_MS)); // at any moment of the sending
    if (victim === 'database') await takeDatabaseAway(draw() * LONGEST_AWAY_MS);
    else await killAndStart(victim);
    await sent;
    texts.push(text);
  }
  const open = () => rows<{ n: string }>(`select count(*) as n from change_set where state = 'sending'`);
  await expect.poll(async () => Number((await open())[0]!.n), { timeout: 120_000 }).toBe(0);
  const there = await rows<{ text: string; n: string }>(
    `select body ->> 'text' as text, count(*) as n from standin.negative
      where body ->> 'text' like 'kestrel lamp %' group by 1`,
  );
  expect(new Map(there.map(({ text, n }) => [text, Number(n)]))).toEqual(
    new Map(texts.map((text) => [text, 1])),
  );
  const told = await rows<{ n: string }>(
    `select count(*) as n from ledger_entry where what like 'Stop “kestrel lamp %' group by what having count(*) <> 1`,
  );
  expect(told).toEqual([]);
});

/** How many exact negatives of each text the platform has. */
async function standing(): Promise<ReadonlyMap<string, number>> {
  const there = await rows<{ text: string; n: string }>(
    `select body ->> 'text' as text, count(*) as n from standin.negative
      where account_id = $1 and status <> 'removed' and body ->> 'match' = 'exact' group by 1`,
    [ACCOUNT],
  );
  return new Map(there.map(({ text, n }) => [text, Number(n)]));
}

test('what a rule does by itself while job processes die is done once', async ({ request }) => {
  const rule = {
    when: [
      { of: 'clicks', is: 'at least', value: 2 },
      { of: 'conversions', is: 'at most', value: 0 },
    ],
    ...{ lookBack: { days: 60, lagDays: 2 }, where: { is: 'everywhere', campaigns: [] } },
    ...{ then: { do: 'stop', at: 'campaign' }, often: 'after each report' },
    how: { is: 'by itself', bounds: { changesADay: 200, costADayMicros: 1e12, leastKept: 0 } },
  };
  const before = await standing();
  const kept = await ask(request, 'POST', 'rules', { name: 'Alone', rule, state: 'on' });
  expect(kept.status()).toBe(200);
  const { ruleId } = (await kept.json()) as { ruleId: number };
  for (const name of ['jobs 1', 'jobs 2', 'jobs 3', 'jobs 2', 'jobs 1'] as const) await killAndStart(name);
  const acts = () =>
    rows<{ changes: number[] }>(`select change_ids as changes from rule_act where rule_id = $1`, [ruleId]);
  await expect.poll(async () => (await acts()).length, { timeout: 120_000 }).toBeGreaterThan(0);
  const open = () => rows<{ n: string }>(`select count(*) as n from change_set where state = 'sending'`);
  await expect.poll(async () => Number((await open())[0]!.n), { timeout: 120_000 }).toBe(0);
  const changes = (await acts()).flatMap((one) => one.changes);
  expect(new Set(changes).size).toBe(changes.length);
  const sets = await rows<{ id: number }>(
    `select distinct change_set_id as id from change join change_set using (account_id, change_set_id)
      where rule_id = $1 or change_id = any($2)`,
    [ruleId, changes],
  );
  expect(sets).toHaveLength(1);
  // Each negative came to the platform, and came there once.
  const sent = await rows<{ text: string; n: string }>(
    `select body ->> 'text' as text, count(*) as n from change
      where change_id = any($1) and body ->> 'kind' = 'add negative' group by 1`,
    [changes],
  );
  expect(sent.length).toBeGreaterThan(0);
  const after = await standing();
  const came = sent.map(({ text }) => after.get(text)! - (before.get(text) ?? 0));
  expect(came).toEqual(sent.map(({ n }) => Number(n)));
  const states = await rows<{ state: string; n: string }>(
    `select state, count(*) as n from change where change_id = any($1) group by state`,
    [changes],
  );
  expect(states).toEqual([{ state: 'there', n: String(changes.length) }]);
});

/** Whoever may die: processes of each kind, and the database. */
const VICTIMS = ['web 1', 'web 2', 'jobs 1', 'jobs 2', 'jobs 3', 'database'] as const;
const LONGEST_MS = 1_500;
const LONGEST_AWAY_MS = 2_000;

/**
 * As if the database fell and came up again: every connection breaks, whatever it was doing, and for a while there are no new
 * ones. The server itself goes on, for other work on this machine may need it.
 */
async function takeDatabaseAway(ms: number) {
  const address = new URL(databaseUrl(settings));
  const database = address.pathname.slice(1);
  const name = pg.escapeIdentifier(database);
  address.pathname = '/postgres'; // nobody may close the door of the room he stands in
  const outside = new pg.Client({ connectionString: address.href });
  await outside.connect();
  const [own] = await rows<{ pid: number }>('select pg_backend_pid() as pid');
  await outside.query(`alter database ${name} allow_connections false`);
  await outside.query(
    'select pg_terminate_backend(pid) from pg_stat_activity where datname = $1 and pid <> $2',
    [database, own!.pid],
  );
  await new Promise((resolve) => setTimeout(resolve, ms));
  await outside.query(`alter database ${name} allow_connections true`);
  await outside.end();
}

test('an upload whose web process dies says so, and leaves nothing behind', async ({ page }) => {
  const before = await rows<{ n: string }>('select count(*) as n from report_file');
  const [began, broken] = uploadWithoutEnd();
  await began;
  await cluster.kill('web 1');
  await cluster.kill('web 2');
  await expect(broken).rejects.toThrow();
  expect(await rows('select count(*) as n from report_file')).toEqual(before);

  await page.goto(`${BASE}/${ACCOUNT}/intake`).catch(() => undefined);
  await Promise.all([cluster.start('web 1'), cluster.start('web 2')]);
  await page.goto(`${BASE}/${ACCOUNT}/intake`);
  // The page stands before its scripts have come; an answer that is shown needs them all.
  await expect(page.getByText(/A file is read and shown before anything is stored/)).toBeVisible();
  await cluster.kill('web 1');
  await cluster.kill('web 2');
  await page.getByLabel('Report files').setInputFiles({
    ...{ name: 'late.csv', mimeType: 'text/csv' },
    buffer: Buffer.from('Day,Search term,Clicks\n2024-03-01,late hive,1\n'),
  });
  await expect(page.getByText(/late\.csv was not brought/)).toBeVisible();
  await Promise.all([cluster.start('web 1'), cluster.start('web 2')]);
  expect(toNumber((await rows<{ n: string }>('select count(*) as n from report_file'))[0]!.n)).toBe(
    toNumber(before[0]!.n),
  );
});

/** Brings a file. @returns its id. @throws where the connection breaks, or nobody answers */
function upload(name: string, bytes: Buffer): Promise<number> {
  return new Promise((resolve, reject) => {
    const sent = begin(name, bytes.length, (status, body) =>
      status === 200
        ? resolve((JSON.parse(body) as { files: { id: number }[] }).files[0]!.id)
        : reject(new Error(`${status} ${body}`)),
    );
    sent.on('error', reject);
    sent.end(bytes);
  });
}

/** @returns when the first of the bytes are on their way; what becomes of the rest, which never comes */
function uploadWithoutEnd(): [began: Promise<void>, broken: Promise<void>] {
  let sent: ClientRequest;
  const broken = new Promise<void>((resolve, reject) => {
    sent = begin('endless.csv', 64 * 1024 ** 2, (status) =>
      status === 200 ? resolve() : reject(new Error(String(status))),
    );
    sent.on('error', reject);
  });
  broken.catch(() => undefined); // waited for later
  const began = new Promise<void>((resolve) => {
    sent.write('Day,Search term,Clicks\n'.padEnd(1024 ** 2, '\n'), () => resolve());
  });
  return [began, broken];
}

function begin(name: string, size: number, answered: (status: number, body: string) => void): ClientRequest {
  const path = `/api/${ACCOUNT}/intake?name=${encodeURIComponent(name)}&size=${size}`;
  const headers = { origin: BASE, 'content-length': size };
  return send(new URL(path, BASE), { method: 'PUT', headers }, (answer) => {
    const parts: Buffer[] = [];
    answer.on('data', (part: Buffer) => parts.push(part));
    answer.on('end', () => answered(answer.statusCode ?? 0, Buffer.concat(parts).toString()));
  });
}
