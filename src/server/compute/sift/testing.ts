import fc from 'fast-check';
import type { Change, MatchType, Place } from '@/core';
import type { TextColumn } from '../../repositories/columns/term-columns';
import type { Mirror } from '../../repositories/structure/structure';
import { dayOf, orderFacts } from '../facts/facts';
import { sumHistory } from '../facts/sum-history';
import { sumWindow } from '../facts/sum-window';
import { openSnapshot, type Snapshot } from '../snapshot';
import { layWorkbench, type Workbench } from '../workbench';

/** Two campaigns with two ad groups each, a keyword in each, and a list that hangs on the first. */
const MIRROR: Mirror = {
  campaigns: ['1', '2'].map((id) => ({
    ...{
      id,
      platformId: null,
      name: `campaign ${id}`,
      status: 'live',
      channel: 'search',
      labels: [],
      priority: null,
      budgetMicros: null,
      sharedBudget: null,
    },
    segments: { location: [], audience: [], device: [], language: [] },
  })),
  adGroups: ['1', '2', '3', '4'].map((id) => ({
    ...{ id, platformId: null, campaignId: id < '3' ? '1' : '2', name: `group ${id}`, status: 'live' },
  })),
  keywords: (['broad', 'phrase', 'exact', 'automatic'] as const).map((match, i) => ({
    ...{ id: String(i + 1), adGroupId: String(i + 1), text: match === 'automatic' ? '' : 'bee hive', match },
    ...{ status: 'live', platformId: null, bidMicros: 500_000, changedOn: null },
  })),
  lists: [
    {
      ...{ id: '1', platformId: 'L1', name: 'list', holds: 'words', hungOn: ['1'] },
      ...{ besides: [], since: new Map(), placements: [] },
    },
  ],
  negatives: [],
  exclusions: [],
};

type Row = { text: number; adGroup: number; clicks: number; cost: number; conversions: number | null };

const TEXTS = ['bee hive', 'hive movie', 'movie', 'bee movie cast', 'free bee hive', 'hives free', 'lk 1'];
const matchType = fc.constantFrom<MatchType>('broad', 'phrase', 'exact');
export const aPlace = fc.constantFrom<Place>(
  { kind: 'account', id: null },
  { kind: 'campaign', id: '1' },
  { kind: 'campaign', id: '2' },
  { kind: 'adGroup', id: '1' },
  { kind: 'adGroup', id: '3' },
  { kind: 'list', id: '1' },
);
const aStop = fc
  .record({ text: fc.constantFrom('movie', 'free', 'bee hive', 'hive'), match: matchType, place: aPlace })
  .map((negative): Change => ({ kind: 'add negative', ...negative }));
const aRow = fc.record<Row>({
  text: fc.nat(TEXTS.length - 1),
  adGroup: fc.integer({ min: 1, max: 4 }),
  clicks: fc.nat(30),
  cost: fc.nat(50),
  conversions: fc.constantFrom(0, 0, 1, 2, null),
});

/** A small window with an account's negatives and a draft over it, some of its terms kept or set aside. */
export const aBench: fc.Arbitrary<Workbench> = fc
  .record({
    rows: fc.uniqueArray(aRow, { minLength: 1, maxLength: 14, selector: (r) => `${r.text} ${r.adGroup}` }),
    standing: fc.array(aStop, { maxLength: 2 }),
    drafted: fc.array(aStop, { maxLength: 2 }),
    kept: fc.subarray(TEXTS, { maxLength: 2 }),
    aside: fc.subarray(TEXTS, { maxLength: 2 }),
  })
  .map(({ rows, standing, drafted, kept, aside }) =>
    layWorkbench(
      aSnapshot(rows),
      {
        accepted: standing.map((change) => ({ change }) as never),
        waiting: [],
        drafted: drafted.map((change) => ({ change }) as never),
      },
      {
        protectedOwn: kept.map((text) => ({ text, raw: text, note: null, by: 'Maren', at: '' })),
        aside: aside.map((key) => ({
          ...{ key, raw: key, moreClicks: 3, afterDay: '2026-11-20', by: 'Maren', at: '' },
        })),
        tags: [],
        locations: [],
      },
    ),
  );

const DAY = '2026-11-20';

function aSnapshot(rows: readonly Row[]): Snapshot {
  const ids = TEXTS.map((_, text) => text + 1);
  const column = (of: (row: Row) => number) => Int32Array.from(rows, of);
  const figures = rows.flatMap(({ clicks, cost, conversions }) => [
    ...[10 * clicks, clicks, cost * 1_000_000, conversions ?? NaN, NaN],
  ]);
  const adGroupId = column((row) => row.adGroup);
  const facts = orderFacts(
    {
      ...{ count: rows.length, day: new Int32Array(rows.length).fill(dayOf(DAY)) },
      ...{ termId: column((row) => row.text + 1), adGroupId, keywordId: adGroupId },
      figures: Float64Array.from(figures),
    },
    {
      ...{ count: ids.length, ids: Int32Array.from(ids), kinds: new Uint8Array(ids.length) },
      ...{ keys: textsOf(TEXTS), raws: textsOf(TEXTS) },
    },
    { from: DAY, to: DAY },
  );
  const window = { from: '2026-11-01', to: DAY };
  return openSnapshot(
    { window, dataDays: facts.dataDays, ...sumWindow(facts, window), history: sumHistory(facts, 0) },
    { mirror: MIRROR, ownTargets: { campaigns: [], productGroups: [] } },
    null,
  );
}

/** Texts as a column. */
export function textsOf(texts: readonly string[]): TextColumn {
  const parts = texts.map((text) => Buffer.from(text));
  const starts = Uint32Array.from([0, ...parts], (_, t) =>
    parts.slice(0, t).reduce((sum, { length }) => sum + length, 0),
  );
  return { starts, bytes: Buffer.concat(parts) };
}
