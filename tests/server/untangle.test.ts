import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { ConflictsShown } from '@/contracts/untangle';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { setVerdict } from '@/server/use-cases/sift/set-verdict';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { leaveKnot, takeKnotBack } from '@/server/use-cases/untangle/knots/leave-knot';
import { viewConflicts } from '@/server/use-cases/untangle/view-conflicts';
import { viewMisspelt } from '@/server/use-cases/untangle/view-misspelt';
import { viewNeedless } from '@/server/use-cases/untangle/view-needless';
import { viewMends } from '@/server/use-cases/untangle/view-mends';
import { aQuery, aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

let world: World;
afterEach(() => world.close());

/** The seed with knots: negatives that came in the midst of the data, so that the days before tell what they cost. */
async function makeKnotted() {
  const { structure, queries } = aSeed();
  const negative = (
    id: string,
    text: string,
    match: 'broad' | 'phrase' | 'exact',
    place: (typeof structure.negatives)[number]['place'],
    createdAt = '2026-11-18T00:00:00Z',
  ) => ({ id, text, match, place, createdAt, status: 'live' as const });
  const seated = structure.keywords.map((keyword) => ({ ...keyword }));
  world = await makeWorld(
    aSeed({
      queries: [...queries, aQuery('free hive', { means: ['free', 'hive'] })],
      structure: {
        ...structure,
        keywords: [
          ...seated,
          { ...seated[0]!, id: 'K5', adGroupId: 'G2', text: 'bee hive movie', match: 'exact' },
          { ...seated[0]!, id: 'K6', adGroupId: 'G1', text: 'bee hive movie', match: 'broad' },
        ],
        hangings: [
          ...structure.hangings,
          { listId: 'S2', campaignId: 'C1', status: 'live', since: '2026-11-18' },
        ],
        negatives: [
          ...structure.negatives,
          negative('N1', 'kit', 'phrase', { kind: 'adGroup', id: 'G1' }),
          negative('N0', 'kit', 'phrase', { kind: 'adGroup', id: 'G1' }), // its twin
          negative('N2', 'free', 'broad', { kind: 'list', id: 'S2' }, '2026-01-01T00:00:00Z'),
          negative('N3', 'bee hive movie', 'exact', { kind: 'adGroup', id: 'G1' }),
          negative('N4', 'course', 'phrase', { kind: 'campaign', id: 'C2' }, '2026-01-01T00:00:00Z'),
        ],
      },
    }),
  );
}

const view = (shown: ConflictsShown = 'open') => viewConflicts(world.deps, world.slug, { shown, days: 7 });
const told = async (shown?: ConflictsShown) =>
  (await view(shown)).lines.map(({ negative, severity, keyword }) => [
    negative.text,
    severity,
    keyword?.text ?? null,
  ]);
const keyOf = async (text: string) =>
  (await view()).lines.find(({ negative }) => negative.text === text)!.key;
const mends = async (text: string) => viewMends(world.deps, world.slug, { key: await keyOf(text), days: 7 });
const draft = (...changes: Parameters<typeof draftChanges>[3][number]['change'][]) =>
  draftChanges(
    world.deps,
    world.slug,
    world.personId,
    changes.map((change) => ({ change })),
  );

describe('conflicts', () => {
  beforeEach(makeKnotted);

  test('are told with what they cost before, the costliest first; what is not known comes last', async () => {
    expect(await told()).toEqual([
      ['kit', 'costly', 'bee hive'],
      ['free', 'shut out', 'free hive'],
      ['course', 'narrowed', 'bee course'],
    ]);
    const { lines, lost, days } = await view();
    expect(days).toBe(7);
    expect(lines[0]!.lost!.conversions).toBeGreaterThan(0);
    expect(lines[0]!.negative.placeName).toBe('ad group Starter');
    expect(lines[1]!.lost).toMatchObject({ conversions: 0 });
    expect(lines[2]!.lost).toBeNull();
    expect(lost).toEqual({ conversions: lines[0]!.lost!.conversions, unknown: 1 });
  });

  test('that are meant so stand apart, with the keyword for which the queries are kept', async () => {
    expect(await told('meant')).toEqual([['bee hive movie', 'narrowed', 'bee hive movie']]);
    expect((await view('meant')).lines[0]!.seat).toMatchObject({ match: 'exact', adGroup: 'Stands' });
  });

  test('with protected terms are told of what people keep', async () => {
    await setVerdict(world.deps, world.slug, world.personId, {
      ...{ raw: 'free course', verdict: { is: 'kept', note: null } },
    });
    const line = (await view()).lines.find(({ severity }) => severity === 'protected')!;
    expect(line.protected).toEqual({ count: 1, first: ['free course'] });
    expect(line.keyword).toBeNull();
  });

  test('that the tray mends are counted, and listed no more', async () => {
    const place = { kind: 'adGroup', id: (await adGroups()).Starter! } as const;
    await draft({ kind: 'remove negative', text: 'kit', match: 'phrase', place });
    expect((await view()).counts).toEqual({ open: 2, meant: 1, left: 0, inTray: 1 });
    const keywordId = (await view()).lines[0]!.keyword!.id;
    await draft({ kind: 'pause keyword', keywordId });
    expect(await told()).toEqual([['course', 'narrowed', 'bee course']]);
  });

  test('are left with a reason until a day, and come back by the ledger', async () => {
    const leave = (until: string | null) => async (key: string) =>
      leaveKnot(world.deps, world.slug, world.personId, {
        ...{ kind: 'conflict', key, why: 'Sold out until spring', until, days: 7 },
      });
    await leave(null)(await keyOf('kit'));
    expect((await view('left')).lines[0]!.left).toMatchObject({
      ...{ why: 'Sold out until spring', by: 'Maren Oakes', until: null },
    });
    expect((await view()).counts).toMatchObject({ open: 2, left: 1 });
    const other = await viewConflicts(world.deps, world.slug, { shown: 'left', days: 3 });
    expect(other.counts.left).toBe(1); // whatever days are looked at
    const key = (await view('left')).lines[0]!.key;
    const { lines: entries } = await viewLedger(world.deps, world.slug, { about: 'knot' });
    expect(entries[0]).toMatchObject({ what: expect.stringContaining('Leave “kit” (phrase) against') });
    await undoEntry(world.deps, world.slug, world.personId, entries[0]!.id);
    expect((await view()).counts).toMatchObject({ open: 3, left: 0 });
    await expect(
      takeKnotBack(world.deps, world.slug, world.personId, { kind: 'conflict', key }),
    ).rejects.toThrow(/not left/);
    await expect(leave('2026-11-01')(key)).rejects.toThrow(/past/);
    await expect(leave(null)('nothing')).rejects.toThrow(/not there any more/);
  });
});

describe('needless negatives', () => {
  beforeEach(makeKnotted);
  const needless = () => viewNeedless(world.deps, world.slug, { pile: 'open' });

  test('come with what covers them and with the proof, as the tray leaves the account', async () => {
    expect(await needless()).toMatchObject({ lines: [], twins: 1, proof: { differences: 0 } });
    const place = { kind: 'adGroup', id: (await adGroups()).Starter! } as const;
    await draft({ kind: 'add negative', text: 'free poster', match: 'phrase', place });
    const view = await needless();
    expect(view.lines).toMatchObject([
      {
        negative: { text: 'free poster', placeName: 'ad group Starter' },
        ...{ coveredBy: { text: 'free', placeName: 'list Old' }, isLasting: true },
      },
    ]);
    expect(view.proof.adGroups).toBe(1);
    expect(view.proof.generated).toBeGreaterThan(0);
    await draft({ kind: 'remove negative', text: 'free poster', match: 'phrase', place });
    expect((await needless()).lines).toEqual([]);
  });
});

describe('the mends of a conflict', () => {
  beforeEach(makeKnotted);

  test('tell what each would open; the one that opens least without return is proposed', async () => {
    const of = await mends('free');
    expect(of).toMatchObject({ since: '2026-11-18', passing: { count: 1, first: ['free hive'] } });
    const line = (how: string) => of.mends.find((mend) => mend.how === how)!;
    expect(of.mends.map(({ how }) => how)).toEqual(['longer', 'taken down', 'removed', 'paused']);
    expect(line('longer')).toMatchObject({ letsPass: true, isProposed: true, stillStops: of.stops - 1 });
    expect(line('longer').said).toMatch(/^Stop “free bee” \(phrase\) in its place$/);
    expect(line('removed').opens!.wastedMicros).toBeGreaterThan(line('longer').opens!.wastedMicros);
    expect(line('removed').stillStops).toBe(0);
    expect(line('paused')).toMatchObject({ letsPass: false, opens: { terms: 0 }, stillStops: of.stops });
  });

  test('go to the tray, and end the conflict there', async () => {
    const { mends: ways } = await mends('free');
    await draft(...ways[0]!.changes);
    expect(await told()).not.toContainEqual(['free', 'shut out', 'free hive']);
    expect((await view()).counts.inTray).toBe(1);
  });

  test('of a costly one let pass what converted', async () => {
    const of = await mends('kit');
    expect(of.passing.first).toEqual(['bee hive kit']);
    expect(of.mends.find(({ isProposed }) => isProposed)!.opens!.conversions).toBeGreaterThan(0);
  });

  test('count each row once, also where two keywords of an ad group served a term', async () => {
    await world.load(
      [
        'Day,Campaign,Ad group,Keyword,Match type,Search term,Impressions,Clicks,Cost,Conversions',
        '2026-11-13,Hives,Starter,bee hive movie,broad,free bee hive plans,90,7,3.50,0',
      ].join('\n'),
    );
    const { rows } = await world.db.raw(
      `select sum(d.cost_micros)::bigint as cost from term_day d join term t using (account_id, term_id)
         join ad_group g using (account_id, ad_group_id) join campaign c using (account_id, campaign_id)
        where t.key ~ '\\mfree\\M' and c.name = 'Hives' and d.day between '2026-11-11' and '2026-11-17'`,
    );
    const removed = (await mends('free')).mends.find(({ how }) => how === 'removed')!;
    expect(removed.opens!.costMicros).toBe(Number(rows[0].cost));
  });

  test('of one that is gone are refused', async () => {
    await expect(viewMends(world.deps, world.slug, { key: 'gone' })).rejects.toThrow(/not there any more/);
  });
});

async function adGroups(): Promise<Record<string, string>> {
  const rows = await world
    .db('ad_group')
    .where({ account_id: world.accountId })
    .select('name', 'ad_group_id');
  return Object.fromEntries(rows.map((row) => [row.name, String(row.ad_group_id)]));
}

test('a negative that nobody writes like that is told with what was meant, and what that would stop', async () => {
  await makeKnotted();
  const place = { kind: 'account', id: null } as const;
  await draft({ kind: 'add negative', text: 'moovie', match: 'phrase', place });
  const { lines } = await viewMisspelt(world.deps, world.slug, { pile: 'open', days: 7 });
  expect(lines.map(({ negative, meant }) => [negative.text, meant])).toEqual([['moovie', 'movie']]);
  expect(lines[0]!.would.terms).toBeGreaterThan(0);
  expect(lines[0]!.hits.count).toBe(0);
  await draft(
    { kind: 'add negative', text: 'movie', match: 'phrase', place },
    { kind: 'remove negative', text: 'moovie', match: 'phrase', place },
  );
  expect((await viewMisspelt(world.deps, world.slug, { pile: 'open', days: 7 })).lines).toEqual([]);
});

test('a negative of a campaign that is asked first is meant so, where a later one takes what it stops', async () => {
  const { structure, ...seed } = aSeed();
  const [keyword] = structure.keywords;
  const [first, later] = structure.campaigns;
  world = await makeWorld({
    ...seed,
    structure: {
      ...structure,
      campaigns: [
        { ...first!, priority: 'high' },
        { ...later!, priority: 'low' },
      ],
      keywords: [
        ...structure.keywords,
        { ...keyword!, id: 'K7', adGroupId: 'G3', text: 'hive' },
        { ...keyword!, id: 'K8', adGroupId: 'G2', text: 'hive stand' },
      ],
      negatives: [
        {
          ...{ id: 'N1', text: 'hive stand', match: 'phrase', status: 'live' },
          ...{ place: { kind: 'campaign', id: 'C1' }, createdAt: '2026-11-18T00:00:00Z' },
        },
      ],
    },
  });
  const { lines, counts } = await view('meant');
  expect(counts.open).toBe(0);
  expect(lines.map(({ negative, seat }) => [negative.text, seat?.text, seat?.campaign])).toContainEqual([
    ...['hive stand', 'hive', 'Courses'],
  ]);
});
