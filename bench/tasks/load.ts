import { appendFile, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { randomLcg } from 'd3';
import Papa from 'papaparse';
import pg from 'pg';
import { from as copyFrom } from 'pg-copy-streams';
import { readReport, shiftDay } from '@/core';
import { createHooks } from '@/server/alerts/hooks';
import { systemClock } from '@/server/clock';
import { createSnapshots } from '@/server/compute/snapshots';
import { connect } from '@/server/db/connection';
import { migrate } from '@/server/db/migrate';
import { readReportFile } from '@/server/files/open-report';
import { readerHere } from '@/server/files/reader/file-reader';
import { createHttpIdeaSource } from '@/server/ideas/http-idea-source';
import { createHttpPlatform } from '@/server/platform/http-platform';
import type { Deps } from '@/server/use-cases/deps';
import { loadReport } from '@/server/use-cases/intake/load-report';
import { insertAccount, insertPeople } from '@/server/repositories/account/accounts';
import { askForLoad, takeIn } from '@/server/use-cases/intake/take-in';
import { dropDatabase, ensureDatabase, startDatabase } from '../../scripts/steps/postgres';
import { databaseUrl, readSettings } from '../../scripts/steps/settings';
import { makeAccount } from '../account';
import { against, count, interleaved, ms, timedOnce, type Line } from '../measure';

const NAME = 'gatepost_bench';
const SAMPLE = 1 / 40;
const ACCOUNT = {
  ...{ name: 'Bench', currency: 'EUR', steersBy: 'CPA' as const },
  ...{ targetMicros: null, targetAcos: null, productCodePattern: null },
};

/** As bytes, so that a million lines are no burden to the collector while something else is measured. */
function bytesOfReport(size: number, firstDay: string): Buffer {
  return Buffer.from(makeReport(size, firstDay).join('\n'));
}

/** A row a line, comma-separated, in no order of days. */
export function makeReport(size: number, firstDay: string): string[] {
  const { terms, clicks } = makeAccount(Math.round(size * 0.6), 1);
  const draw = randomLcg(0.9);
  const days = Array.from({ length: 90 }, (_, i) => shiftDay(firstDay, i));
  const rows = Array.from({ length: size }, () => {
    const t = Math.floor(terms.length * draw() ** 2);
    const [campaign, group] = [Math.floor(20 * draw()), Math.floor(5 * draw())];
    const cost = (clicks[t]! * 0.7).toFixed(2);
    return `${days[Math.floor(90 * draw())]},Campaign ${campaign},Group ${group},words ${t % 40},broad,${terms[t]},${9 * clicks[t]!},${clicks[t]},${cost},${t % 17 === 0 ? 1 : 0}`;
  });
  return [
    'Day,Campaign,Ad group,Keyword,Match type,Search term,Impressions,Clicks,Cost,Conversions',
    ...rows,
  ];
}

/** Memory does not grow with the file. */
export async function benchReadingMemory(quick: boolean): Promise<Line[]> {
  const folder = await mkdtemp(path.join(tmpdir(), 'gatepost-bench-'));
  try {
    const [small, large] = quick ? [1, 10] : [10, 100];
    const peakOf = async (megabytes: number) => {
      const file = path.join(folder, `${megabytes}.csv`);
      await writeReport(file, megabytes * 1e6);
      let peak = 0;
      const look = setInterval(() => (peak = Math.max(peak, process.memoryUsage().heapUsed)), 20);
      const start = performance.now();
      const { rows } = await readReportFile(file);
      clearInterval(look);
      return { peak: Math.round(peak / 1e6), rows, took: performance.now() - start };
    };
    const [first, second] = [await peakOf(small), await peakOf(large)];
    return [
      {
        task: 'reading a file: peak of the heap',
        size: `${small} MB → ${large} MB, ${count(second.rows)} rows`,
        ours: ms(second.took),
        against: `limit: 300 MB`,
        ratio: (second.peak / 300).toFixed(2),
        verdict: `${first.peak} MB → ${second.peak} MB`,
      },
    ];
  } finally {
    await rm(folder, { recursive: true });
  }
}

/** A report of about so many bytes, written in pieces. */
async function writeReport(file: string, bytes: number): Promise<void> {
  const [header, ...rows] = makeReport(10_000, '2026-01-01');
  const piece = `${rows.join('\n')}\n`;
  await writeFile(file, `${header}\n`);
  for (let written = 0; written < bytes; written += piece.length) await appendFile(file, piece);
}

export async function benchReading(quick: boolean): Promise<Line[]> {
  const size = quick ? 20_000 : 1_000_000;
  const bytes = bytesOfReport(size, '2026-01-01');
  const text = bytes.toString('utf8');
  const times = await interleaved(
    {
      ours: () => readReport(bytes),
      papaparse: () => Papa.parse<string[]>(text).data.length,
      lines: () => {
        let found = 0;
        for (let at = bytes.indexOf(10); at >= 0; at = bytes.indexOf(10, at + 1)) found++;
        return found;
      },
    },
    3,
  );
  return against('reading a CSV into typed rows', `${count(size)} rows`, times.ours, {
    'papaparse alone': times.papaparse,
    'limit: counting lines': times.lines,
  });
}

/** Loading a report into the database: three first ones, each of an account of its own, and a second one. */
export async function benchLoad(quick: boolean): Promise<Line[]> {
  const size = quick ? 20_000 : 1_000_000;
  const bytes = bytesOfReport(size, '2026-01-01');
  const settings = readSettings();
  await startDatabase(settings);
  await dropDatabase(settings, NAME);
  await ensureDatabase(settings, NAME);
  const url = databaseUrl(settings, NAME);
  const folder = await mkdtemp(path.join(tmpdir(), 'gatepost-bench-'));
  await migrate(url);
  const db = connect(url);
  const deps: Deps = {
    ...{
      db,
      clock: systemClock,
      snapshots: createSnapshots(),
      reader: readerHere,
      files: folder,
      enqueue: () => Promise.resolve(),
    },
    platform: createHttpPlatform('http://127.0.0.1:1'), // nothing is asked of it
    ideas: createHttpIdeaSource('http://127.0.0.1:1'),
    ...{ mail: null, hooks: createHooks(), address: 'http://127.0.0.1:1' },
  };
  try {
    const load = async (slug: string, report: Buffer) => {
      async function* source() {
        yield report;
      }
      const { account_id: accountId } = await db('account').where({ slug }).first('account_id');
      const { person_id: personId } = await db('person').first('person_id');
      const [file] = await takeIn(deps, slug, { name: 'report.csv', source: 'file', personId }, source());
      await askForLoad(deps, slug, file!.id, {});
      const took = await timedOnce(() => loadReport(deps, accountId, file!.id));
      const { state, error } = await db('report_file')
        .where({ report_file_id: file!.id })
        .first('state', 'error');
      if (state !== 'loaded') throw new Error(`the report is ${state}: ${error}`);
      return took;
    };
    const [copies, firsts]: [number[], number[]] = [[], []];
    for (const slug of ['one', 'two', 'three']) {
      await insertPeople(db, ['Maren Oakes']);
      await insertAccount(db, { ...ACCOUNT, slug, platformAccountId: slug });
      const before = await copyPlainly(url, bytes);
      firsts.push(await load(slug, bytes));
      copies.push((before + (await copyPlainly(url, bytes))) / 2);
    }
    const second = await load('one', bytesOfReport(size, '2026-04-01'));
    const sample = firstLines(bytes, size * SAMPLE);
    const inserts = async (took: Promise<number>) => ({ times: [await took], share: SAMPLE });
    const peers = {
      'limit: COPY into a table without keys': copies,
      '1,000 INSERTs a transaction': await inserts(insertOneByOne(url, sample)),
      'the same, prepared once': await inserts(insertOneByOne(url, sample, 'insert')),
      'INSERTs of 1,000 rows': await inserts(insertInBatches(url, sample)),
    };
    return [
      ...against('loading a report, the first', `${count(size)} rows`, firsts, peers),
      ...against('loading another into a full table', `${count(size)} rows`, [second], peers),
    ];
  } finally {
    await db.destroy();
    await dropDatabase(settings, NAME);
    await rm(folder, { recursive: true });
  }
}

const PLAIN = `day date, campaign text, ad_group text, keyword text, match text, term text,
  impressions bigint, clicks bigint, cost numeric, conversions double precision`;

/** The rows of a report that begins with them, as cells. */
function firstLines(bytes: Buffer, count: number): string[][] {
  const [, ...rows] = bytes
    .subarray(0, 1_000 * count)
    .toString('utf8')
    .split('\n', count + 1);
  return rows.map((row) => row.split(','));
}

const PIECE = 1 << 18; // bytes

async function copyPlainly(url: string, bytes: Buffer): Promise<number> {
  return onDatabase(url, async (client) => {
    await client.query(`create unlogged table plain (${PLAIN})`);
    const pieces = function* () {
      for (let at = bytes.indexOf('\n') + 1; at < bytes.length; at += PIECE)
        yield bytes.subarray(at, at + PIECE);
    };
    const start = performance.now();
    await pipeline(
      Readable.from(pieces()),
      client.query(copyFrom('copy plain from stdin with (format csv)')),
    );
    const time = performance.now() - start;
    await client.query('drop table plain');
    return time;
  });
}

/** What stands there after a load, made by a simple program: each term once, and facts that name it by its number. */
const KEYED = `
  create table keyed_term (term_id integer generated always as identity primary key, text text not null unique);
  create table keyed (
    day date, campaign text, ad_group text, keyword text, match text, term_id integer, impressions bigint,
    clicks bigint, cost numeric, conversions double precision,
    primary key (day, campaign, ad_group, keyword, match, term_id))`;

/** Inserts rows that are given as ($1, …, $10), ($11, …, $20) …, each text of a cell as it stands in the file. */
const insertGiven = (values: string) => `
  with given (day, campaign, ad_group, keyword, match, term, impressions, clicks, cost, conversions) as (values ${values}),
  known as (
    insert into keyed_term (text) select distinct term from given
        on conflict (text) do update set text = excluded.text returning term_id, text)
  insert into keyed
  select day::date, campaign, ad_group, keyword, match, term_id, impressions::bigint, clicks::bigint, cost::numeric,
         conversions::float8
    from given join known on text = term
      on conflict do nothing`;

const placeholders = (row: number) =>
  `(${Array.from({ length: 10 }, (_, c) => `$${10 * row + c + 1}`).join()})`;

async function insertInBatches(url: string, rows: readonly (readonly string[])[]): Promise<number> {
  return intoKeyed(url, async (client) => {
    for (let at = 0; at < rows.length; at += 1_000) {
      const batch = rows.slice(at, at + 1_000);
      await client.query(insertGiven(batch.map((_, r) => placeholders(r)).join()), batch.flat());
    }
  });
}

/** The same, a statement a row. @param name under which the statement is prepared; it is read each time without one */
async function insertOneByOne(
  url: string,
  rows: readonly (readonly string[])[],
  name?: string,
): Promise<number> {
  const text = insertGiven(placeholders(0));
  return intoKeyed(url, async (client) => {
    for (let at = 0; at < rows.length; at += 1_000) {
      await client.query('begin');
      for (const values of rows.slice(at, at + 1_000))
        await client.query({ name, text, values: [...values] });
      await client.query('commit');
    }
  });
}

/** @returns how long the work on empty tables takes */
async function intoKeyed(url: string, work: (client: pg.Client) => Promise<void>): Promise<number> {
  return onDatabase(url, async (client) => {
    await client.query(KEYED);
    const took = await timedOnce(() => work(client));
    await client.query('drop table keyed, keyed_term');
    return took;
  });
}

async function onDatabase(url: string, work: (client: pg.Client) => Promise<number>): Promise<number> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}
