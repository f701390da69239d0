import fc from 'fast-check';
import { daysBetween, type Change, type MatchType, type Place } from '@/core';
import type { Mirror } from '../../repositories/structure/structure';
import { historyOfWindow } from '../history/history-of-window';
import { openSnapshot, type Snapshot } from '../snapshot';
import { collectRows, collectTerms } from '../window-columns';
import { layWorkbench, type Workbench } from '../workbench';

/** Two campaigns with two ad groups each, a keyword in each, and a list that hangs on the first. */
const MIRROR: Mirror = {
  campaigns: ['1', '2'].map((id) => ({
    ...{ id, platformId: null, name: `campaign ${id}`, status: 'live', channel: 'search', labels: [] },
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
      },
    ),
  );

function aSnapshot(rows: readonly Row[]): Snapshot {
  const used = [...new Set(rows.map((r) => r.text))].sort((a, b) => a - b);
  const terms = collectTerms();
  for (const text of used) {
    const bytes = new TextEncoder().encode(TEXTS[text]!);
    terms.add({ id: text + 1, key: bytes, raw: bytes, kind: 'query' });
  }
  const columns = collectRows((id) => used.indexOf(id - 1));
  const ordered = [...rows].sort((a, b) => a.text - b.text || a.adGroup - b.adGroup);
  for (const { text, adGroup, clicks, cost, conversions } of ordered) {
    columns.add({
      ...{
        termId: text + 1,
        adGroupId: adGroup,
        keywordId: adGroup,
        lastDay: daysBetween('1970-01-01', '2026-11-20'),
        clicks,
        conversions: conversions ?? NaN,
      },
      ...{ impressions: 10 * clicks, costMicros: cost * 1_000_000, valueMicros: NaN },
    });
  }
  const data = {
    ...{ window: { from: '2026-11-01', to: '2026-11-20' }, dataDays: null, mirror: MIRROR, days: [] },
    ownTargets: { campaigns: [], productGroups: [] },
    ...{ rows: columns.finish(), terms: terms.finish(), converting: [] },
  };
  return openSnapshot(data, historyOfWindow(data));
}
