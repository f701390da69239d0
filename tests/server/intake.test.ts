import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import {
  askForLoad,
  cancelLoad,
  listLoads,
  readUpload,
  refusedSheet,
  takeIn,
} from '@/server/use-cases/take-in';
import { loadReport } from '@/server/use-cases/load-report';
import { makeWorld, type World } from '../support/world';

const HEADER =
  'Search term,Campaign,Ad group,Keyword,Match type,Day,Impressions,Clicks,Cost,Conversions,Value';
const row = (term: string, over: { day?: string; clicks?: string; cost?: string; campaign?: string } = {}) =>
  `${term},${over.campaign ?? 'Hives'},Starter,bee hive,broad,${over.day ?? '2026-10-01'},100,${over.clicks ?? '10'},${over.cost ?? '5.00'},0,0`;
const report = (...rows: string[]) => [HEADER, ...rows].join('\n');

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
beforeEach(() => world.db('term_day').where('day', '<', '2026-11-01').delete());
afterAll(() => world.close());

const facts = () =>
  world
    .db('term_day')
    .join('term', 'term.term_id', 'term_day.term_id')
    .where('day', '<', '2026-11-01')
    .orderBy(['day', 'key'])
    .select('key', 'day', 'clicks', 'cost_micros');
const stateOf = async (id: number) => (await listLoads(world.deps, world.slug)).find((f) => f.id === id)!;

describe('loading a report', () => {
  test('stores its rows, and names elements that were not known', async () => {
    const id = await world.load(report(row('oak hive'), row('pine hive', { campaign: 'Never seen' })));
    expect(await facts()).toEqual([
      { key: 'oak hive', day: '2026-10-01', clicks: 10, cost_micros: 5_000_000 },
      { key: 'pine hive', day: '2026-10-01', clicks: 10, cost_micros: 5_000_000 },
    ]);
    expect((await stateOf(id)).outcome).toMatchObject({ rows: 2, added: 2, replaced: 0, rejected: 0 });
    expect(await world.db('campaign').where({ name: 'Never seen' }).first('status')).toEqual({
      status: 'unknown',
    });
    expect(await world.db('campaign').where({ name: 'Hives' }).count().first()).toEqual({ count: 1 });
  });

  test('sums rows of one key within a file, and replaces those of another file', async () => {
    await world.load(report(row('oak hive'), row('Oak-Hive', { clicks: '2', cost: '1.00' })));
    expect(await facts()).toEqual([
      { key: 'oak hive', day: '2026-10-01', clicks: 12, cost_micros: 6_000_000 },
    ]);
    const id = await world.load(
      report(row('oak hive', { clicks: '3', cost: '0.30' }), row('oak hive', { day: '2026-10-02' })),
    );
    expect(await facts()).toEqual([
      { key: 'oak hive', day: '2026-10-01', clicks: 3, cost_micros: 300_000 },
      { key: 'oak hive', day: '2026-10-02', clicks: 10, cost_micros: 5_000_000 },
    ]);
    expect((await stateOf(id)).outcome).toMatchObject({ added: 1, replaced: 1 });
  });

  test('the same file twice changes nothing, and says so', async () => {
    const text = report(row('same hive'));
    await world.load(text);
    const before = await world.db('account').first('data_version');
    await expect(world.load(text)).rejects.toThrow('loaded before');
    expect(await world.db('account').first('data_version')).toEqual(before);
  });

  test('keeps refused rows with line and reason, and loads the good ones', async () => {
    const id = await world.load(
      report(
        row('good hive'),
        row('bad hive', { clicks: '1x' }),
        row('=cmd()'),
        row('<script>alert(1)</script>'),
        row('nul\u0000byte'),
      ),
    );
    expect((await facts()).map((f) => f.key)).toEqual(['cmd', 'good hive', 'script alert 1 script']);
    const sheet = await refusedSheet(world.deps, world.slug, id);
    expect(sheet).toContain('3,bad number,clicks “1x”');
    expect(sheet).toContain('6,not text');
  });

  test('terms without a word and product codes keep their cost and stand apart', async () => {
    await world.load(report(row('???'), row('LK-9999'), row('lk 9999')));
    const kinds = await world
      .db('term')
      .whereIn('key', ['???', 'lk-9999', 'lk 9999'])
      .orderBy('key')
      .select('key', 'kind');
    expect(kinds).toEqual([
      { key: '???', kind: 'wordless' },
      { key: 'lk 9999', kind: 'query' },
      { key: 'lk-9999', kind: 'code' },
    ]);
  });
});

describe('a file that can not be loaded', () => {
  test('stores nothing when a question is open', async () => {
    const id = await world.load('Search term,Day,Clicks\nhive,01/02/2026,3\n');
    expect(await stateOf(id)).toMatchObject({ state: 'failed', outcome: null });
    expect(await facts()).toEqual([]);
    await askForLoad(world.deps, world.slug, id, { dayOrder: 'day first' });
    await world.work();
    expect(await stateOf(id)).toMatchObject({
      state: 'loaded',
      outcome: { rows: 1, days: { from: '2026-02-01' } },
    });
  });

  test('a load that is cancelled leaves nothing behind', async () => {
    async function* bytes() {
      yield Buffer.from(report(row('cancelled hive')));
    }
    const file = await takeIn(
      world.deps,
      world.slug,
      { name: 'c.csv', source: 'file', personId: world.personId },
      bytes(),
    );
    await askForLoad(world.deps, world.slug, file.id, {});
    await world.db('report_file').where({ report_file_id: file.id }).update({ state: 'loading' });
    await cancelLoad(world.deps, world.slug, file.id);
    await loadReport(world.deps, world.accountId, file.id);
    expect((await stateOf(file.id)).state).toBe('cancelled');
    expect(await facts()).toEqual([]);
  });

  test('a fault in the middle rolls everything back, and the next try finishes it', async () => {
    async function* bytes() {
      yield Buffer.from(report(row('faulty hive'), row('other hive')));
    }
    const file = await takeIn(
      world.deps,
      world.slug,
      { name: 'f.csv', source: 'file', personId: world.personId },
      bytes(),
    );
    await askForLoad(world.deps, world.slug, file.id, {});
    await world.db.raw(`alter table rejected_row rename to rejected_row_gone`);
    await expect(loadReport(world.deps, world.accountId, file.id)).rejects.toThrow('rejected_row');
    await world.db.raw(`alter table rejected_row_gone rename to rejected_row`);
    expect(await facts()).toEqual([]);
    expect((await stateOf(file.id)).state).toBe('loading');
    await loadReport(world.deps, world.accountId, file.id);
    expect(await facts()).toHaveLength(2);
  });
});

test('a reading stores nothing, and says how many of its days hold data', async () => {
  await world.load(report(row('day hive')));
  async function* bytes() {
    yield Buffer.from(report(row('next hive'), row('next hive', { day: '2026-10-03' })));
  }
  const file = await takeIn(
    world.deps,
    world.slug,
    { name: 'n.csv', source: 'file', personId: world.personId },
    bytes(),
  );
  const answer = await readUpload(world.deps, world.slug, file.id, {});
  expect(answer).toMatchObject({ daysThere: 1, loadedBefore: null, reading: { rows: 2 } });
  expect((await facts()).map((f) => f.key)).toEqual(['day hive']);
});
