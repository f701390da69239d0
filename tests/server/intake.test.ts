import { readdir } from 'node:fs/promises';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { readUpload } from '@/server/use-cases/intake/read-upload';
import { keepRecipe } from '@/server/use-cases/intake/recipes';
import { askToTakeBack } from '@/server/use-cases/intake/take-back-load';
import { askForLoad, cancelLoad, refusedSheet, takeIn, viewIntake } from '@/server/use-cases/intake/take-in';
import { loadReport } from '@/server/use-cases/intake/load-report';
import { makeWorld, type World } from '../support/world';
import { zipped } from '../support/zipped';

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
const stateOf = async (id: number) =>
  (await viewIntake(world.deps, world.slug)).files.find((f) => f.id === id)!;

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

  test('elements that a report does not name are called so', async () => {
    await world.load('Search term,Day,Clicks\nnameless hive,2026-10-01,1\n');
    expect(await world.db('campaign').where({ name: 'not given' }).count().first()).toEqual({ count: 1 });
    expect(await world.db('campaign').where({ name: '' }).count().first()).toEqual({ count: 0 });
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
    expect(sheet).toContain(`${HEADER},Refused,Line,Why`);
    expect(sheet).toContain(
      'bad hive,Hives,Starter,bee hive,broad,2026-10-01,100,1x,5.00,0,0,bad number,3,clicks “1x”',
    );
    expect(sheet).toContain(',not text,6,');
    const mended = await world.load(sheet.replace(',1x,', ',7,').replace(/nul.*\r\n/, ''));
    expect((await stateOf(mended)).outcome).toMatchObject({ rows: 1, added: 1, rejected: 0 });
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
    const [id = 0] = await world.bring(report(row('cancelled hive')));
    await askForLoad(world.deps, world.slug, id, {});
    await world.db('report_file').where({ report_file_id: id }).update({ state: 'loading' });
    await cancelLoad(world.deps, world.slug, id);
    await loadReport(world.deps, world.accountId, id);
    expect((await stateOf(id)).state).toBe('cancelled');
    expect(await facts()).toEqual([]);
  });

  test('a fault in the middle rolls everything back, and the next try finishes it', async () => {
    const [id = 0] = await world.bring(report(row('faulty hive'), row('other hive')));
    await askForLoad(world.deps, world.slug, id, {});
    await world.db.raw(`alter table rejected_row rename to rejected_row_gone`);
    await expect(loadReport(world.deps, world.accountId, id)).rejects.toThrow('rejected_row');
    await world.db.raw(`alter table rejected_row_gone rename to rejected_row`);
    expect(await facts()).toEqual([]);
    expect((await stateOf(id)).state).toBe('loading');
    await loadReport(world.deps, world.accountId, id);
    expect(await facts()).toHaveLength(2);
  });
});

test('a reading stores nothing, and says how many of its days hold data', async () => {
  await world.load(report(row('day hive')));
  const [id = 0] = await world.bring(report(row('next hive'), row('next hive', { day: '2026-10-03' })));
  const answer = await readUpload(world.deps, world.slug, id, {});
  expect(answer.daysThere).toContain('2026-10-01');
  expect(answer).toMatchObject({ loadedBefore: null, reading: { rows: 2, rowsByDay: { '2026-10-03': 1 } } });
  expect((await facts()).map((f) => f.key)).toEqual(['day hive']);
});

describe('taking back', () => {
  test('what a load added goes, what it replaced comes back, and it can be loaded again', async () => {
    await world.load(report(row('first hive'), row('kept hive')));
    const before = await facts();
    const second = await world.load(report(row('first hive', { clicks: '99' }), row('newer hive')));
    expect(await facts()).toHaveLength(3);
    await askToTakeBack(world.deps, world.slug, second, world.personId);
    await world.work();
    expect(await facts()).toEqual(before);
    expect((await stateOf(second)).state).toBe('taken back');
    const entry = await world.db('ledger_entry').orderBy('ledger_entry_id', 'desc').first('what');
    expect(entry.what).toBe('Take back report.csv: 2 rows removed, 1 put back');
    await askForLoad(world.deps, world.slug, second, {});
    await world.work();
    expect(await facts()).toHaveLength(3);
  });

  test('is refused while a later load holds rows of it, and names that one', async () => {
    const first = await world.load(report(row('layered hive')));
    const second = await world.load(report(row('layered hive', { clicks: '4' })));
    const back = (id: number) => askToTakeBack(world.deps, world.slug, id, world.personId);
    await expect(back(first)).rejects.toThrow('Take that back first');
    await back(second);
    await world.work();
    await back(first);
    await world.work();
    expect(await facts()).toEqual([]);
    await expect(back(first)).rejects.toThrow('Only what was loaded');
  });
});

describe('a period', () => {
  test('of a file without days is stated, and replaces the days it covers for its rows only', async () => {
    await world.load(report(row('daily hive'), row('daily hive', { day: '2026-10-09' }), row('other hive')));
    const [id = 0] = await world.bring(
      'Search term,Campaign,Ad group,Keyword,Match type,Clicks,Cost\ndaily hive,Hives,Starter,bee hive,broad,50,9.00\n',
    );
    await askForLoad(world.deps, world.slug, id, {});
    await world.work();
    expect(await stateOf(id)).toMatchObject({
      state: 'failed',
      error: expect.stringContaining('Which days'),
    });
    await askForLoad(world.deps, world.slug, id, { period: { from: '2026-10-01', to: '2026-10-10' } });
    await world.work();
    expect((await facts()).map((f) => [f.key, f.day, f.clicks])).toEqual([
      ['other hive', '2026-10-01', 10],
      ['daily hive', '2026-10-10', 50],
    ]);
    expect((await stateOf(id)).outcome).toMatchObject({
      replaced: 2,
      days: { from: '2026-10-01', to: '2026-10-10' },
    });
  });
});

describe('recipes', () => {
  const german = (...rows: string[]) => ['Begriff;Datum;Clicks;Cost', ...rows].join('\n');

  test('what was decided for one file is used for the next with the same columns, in any order', async () => {
    const [id = 0] = await world.bring(german('hive;03/04/2026;1;1,234'));
    const asked = await readUpload(world.deps, world.slug, id, null);
    expect(asked.recipe).toBeNull();
    expect(asked.obstacle).not.toBeNull();
    const decisions = {
      roles: { 0: 'search term' as const },
      dayOrder: 'day first' as const,
      decimalMark: ',' as const,
    };
    await keepRecipe(world.deps, world.slug, world.personId, {
      ...{ name: 'October sheet', headers: asked.reading.columns.map((c) => c.header), decisions },
    });
    const [next = 0] = await world.bring('Cost;Clicks;Datum;Begriff\n1,500;2;04/04/2026;smoker\n');
    const answer = await readUpload(world.deps, world.slug, next, null);
    expect(answer).toMatchObject({
      recipe: { name: 'October sheet' },
      obstacle: null,
      decisions: { roles: { 3: 'search term' }, dayOrder: 'day first' },
      reading: { rows: 1, sums: { costMicros: 1_500_000 }, days: { from: '2026-04-04' } },
    });
    expect((await viewIntake(world.deps, world.slug)).recipes).toMatchObject([
      { name: 'October sheet', columns: 4 },
    ]);
  });
});

describe('other files', () => {
  test('a report in another currency is not loaded', async () => {
    const id = await world.load('Search term,Day,Clicks,Cost (USD)\nhive,2026-10-01,1,2.00\n');
    expect(await stateOf(id)).toMatchObject({ state: 'failed', error: expect.stringContaining('in USD') });
  });

  test('an archive comes apart into its reports; one that is damaged leaves nothing', async () => {
    const archive = await zipped({
      'oct/a.csv': report(row('zip hive')),
      'b.csv': report(row('zip smoker')),
      'x.png': 'x',
    });
    const ids = await world.bring(archive, 'all.zip');
    expect(await Promise.all(ids.map(async (id) => (await stateOf(id)).name))).toEqual([
      'all.zip › oct/a.csv',
      'all.zip › b.csv',
    ]);
    const many = (await viewIntake(world.deps, world.slug)).files.length;
    await expect(world.bring(archive.subarray(0, 200), 'cut.zip')).rejects.toThrow('Nothing was stored');
    expect((await viewIntake(world.deps, world.slug)).files).toHaveLength(many);
  });

  test('a full disk is said so, and leaves nothing', async () => {
    async function* bytes() {
      yield Buffer.from(report(row('full hive')));
      await Promise.resolve();
      throw Object.assign(new Error('no space left on device'), { code: 'ENOSPC' });
    }
    const there = await readdir(world.deps.files);
    const file = { name: 'f.csv', source: 'file' as const, personId: world.personId };
    await expect(takeIn(world.deps, world.slug, file, bytes())).rejects.toThrow('The disk is full');
    expect(await readdir(world.deps.files)).toEqual(there);
  });

  test('keyword ideas are kept, replaced by newer ones, and can be taken back', async () => {
    const ideas = () => world.db('idea').orderBy('key').select('key', 'volume', 'high_bid_micros');
    await world.load('Keyword,Search volume,High bid\nbee hive,1300,1.20\nBee-Hive!,900,\nsmoker,50,0.40\n');
    const id = await world.load('Keyword,Search volume,High bid\nsmoker,70,0.50\n');
    expect(await ideas()).toEqual([
      { key: 'bee hive', volume: 900, high_bid_micros: null },
      { key: 'smoker', volume: 70, high_bid_micros: 500_000 },
    ]);
    expect(await stateOf(id)).toMatchObject({ kind: 'keyword ideas', outcome: { added: 0, replaced: 1 } });
    await askToTakeBack(world.deps, world.slug, id, world.personId);
    await world.work();
    expect((await ideas()).map((i) => i.key)).toEqual(['bee hive']);
  });

  test('a large file is shown by its first rows at once, and as a whole when the job has read it', async () => {
    const rows = Array.from({ length: 90_000 }, (_, i) => row(`large hive number ${i} of a long report`));
    const [id = 0] = await world.bring(report(...rows));
    const first = await readUpload(world.deps, world.slug, id, null);
    expect(first).toMatchObject({ whole: { rowsRead: 0 }, reading: { isPartial: true } });
    expect(first.reading.rows).toBeLessThan(10_000);
    await world.work();
    const whole = await readUpload(world.deps, world.slug, id, null);
    expect(whole).toMatchObject({ whole: null, reading: { rows: 90_000, isPartial: false } });
  });
});

describe('the structure of an account without a platform', () => {
  const STRUCTURE = [
    'Campaign,Ad group,Keyword,Match type,List,Status',
    'Larch,,,,,paused',
    'Larch,Frames,,,,live',
    'Larch,Frames,larch frame,exact,,live',
    'Larch,,free,negative phrase,,live',
    ',,film,broad,Films,live',
    'Larch,,,,Films,live',
  ].join('\n');

  test('comes from a file, by names; the same names again change, and nothing stands twice', async () => {
    const id = await withoutPlatform(() => world.load(STRUCTURE));
    expect(await stateOf(id)).toMatchObject({ kind: 'structure', state: 'loaded', outcome: { rejected: 0 } });
    const { campaign_id } = await world.db('campaign').where({ name: 'Larch', status: 'paused' }).first();
    const negatives = () =>
      world
        .db('negative')
        .where('platform_id', 'like', 'file:%')
        .orderBy('text')
        .select('text', 'match', 'place_kind');
    expect(await negatives()).toEqual([
      { text: 'film', match: 'broad', place_kind: 'list' },
      { text: 'free', match: 'phrase', place_kind: 'campaign' },
    ]);
    expect(await world.db('list_hanging').where({ campaign_id }).count().first()).toEqual({ count: 1 });
    await withoutPlatform(() =>
      world.load(
        `${STRUCTURE.replace('paused', 'live')}\nLarch,,free,negative phrase,,removed\n`.replace(
          /.*phrase,,live\n/,
          '',
        ),
      ),
    );
    expect(await world.db('campaign').where({ name: 'Larch' }).select('status')).toEqual([
      { status: 'live' },
    ]);
    expect((await negatives()).map((n) => n.text)).toEqual(['film']);
    expect(await world.db('keyword').where({ text: 'larch frame' }).count().first()).toEqual({ count: 1 });
  });

  test('is refused where the structure is read from a platform', async () => {
    const id = await world.load(`${STRUCTURE}\n`);
    expect(await stateOf(id)).toMatchObject({
      state: 'failed',
      error: expect.stringContaining('from its platform'),
    });
  });
});

async function withoutPlatform<Answer>(work: () => Promise<Answer>): Promise<Answer> {
  const connected = await world.db('account').first('structure_revision', 'platform_account_id');
  await world.db('account').update({ structure_revision: 0, platform_account_id: null });
  try {
    return await work();
  } finally {
    await world.db('account').update(connected);
  }
}

describe('nothing wrong in silence', () => {
  const looked = async (content: string) => {
    const [id] = await world.bring(content);
    return readUpload(world.deps, world.slug, id!, null);
  };

  test('a file that gives no row says why, with an example', async () => {
    const answer = await looked('Keyword,Search volume\nbee hive,many\nbee kit,lots\n');
    expect(answer.obstacle).toBe(
      'No row can be read. All 2 rows were refused, mostly for “bad number”: line 2, volume “many”. See what the columns are taken for.',
    );
    expect((await looked('Keyword,Search volume\n')).obstacle).toContain(
      'under the header stands no keyword idea',
    );
  });

  test('costs beyond what can be counted exactly are refused, in one file and in many', async () => {
    const huge = '9007199254';
    const answer = await looked(report(row('a', { cost: huge }), row('b', { cost: huge })));
    expect(answer.obstacle).toContain('can not be counted exactly');
    // Many such files: the sum of the account is asked for where a file is large.
    await world.db('term_day').insert(
      Array.from({ length: 1_022 }, (_, i) => ({
        ...{
          account_id: world.accountId,
          day: '2026-10-02',
          ad_group_id: 1,
          keyword_id: i + 1_000,
          term_id: 1,
        },
        cost_micros: '9007199254740991',
      })),
    );
    const one = await world.load(report(row('one more', { cost: huge })));
    expect(await stateOf(one)).toMatchObject({ state: 'loaded' });
    const two = await world.load(report(row('and another', { cost: huge, day: '2026-10-03' })));
    expect(await stateOf(two)).toMatchObject({
      state: 'failed',
      error: expect.stringContaining('more than can be counted'),
    });
  });

  test('rows of another currency are refused, and stand in the sheet with their surplus cells', async () => {
    const id = await world.load(
      [
        'Tag;Suchbegriff;Kampagne;Kosten;Währungscode',
        '01.10.2026;franken;Hives;1,50;CHF',
        '01.10.2026;euro hive;Hives;2,50;EUR',
        '01.10.2026;zu viel;Hives;3,50;EUR;ein;zwei',
      ].join('\n'),
    );
    expect((await facts()).map((f) => f.key)).toEqual(['euro hive']);
    const sheet = await refusedSheet(world.deps, world.slug, id);
    expect(sheet.split('\r\n')[0]).toBe(
      '\uFEFFTag,Suchbegriff,Kampagne,Kosten,Währungscode,Surplus 1,Surplus 2,Refused,Line,Why',
    );
    expect(sheet).toContain('"1,50",CHF,,,other currency,2,"in CHF, and the others are in EUR"');
    expect(sheet).toContain('zu viel,Hives,"3,50",EUR,ein,zwei,too many cells,4');
  });

  test('a file without a header is loaded by what a person says the columns are', async () => {
    const id = await world.load('2026-10-01;kopflos;7;1,50\n2026-10-01;kopflos zwei;8;2,50\n', {
      roles: { 0: 'day', 1: 'search term', 2: 'clicks', 3: 'cost' },
    });
    expect((await stateOf(id)).error).toBeNull();
    expect(await facts()).toEqual([
      { key: 'kopflos', day: '2026-10-01', clicks: 7, cost_micros: 1_500_000 },
      { key: 'kopflos zwei', day: '2026-10-01', clicks: 8, cost_micros: 2_500_000 },
    ]);
  });

  test('ranges of volumes keep both ends', async () => {
    await world.load('Keyword,Search volume\nbee range,1K – 10K\n');
    expect(
      await world.db('idea').where({ key: 'bee range' }).first('volume', 'volume_from', 'volume_to'),
    ).toEqual({
      ...{ volume: 5500, volume_from: 1000, volume_to: 10_000 },
    });
  });
});
