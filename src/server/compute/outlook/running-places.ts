import { learnHabits, matchTexts, type Habits } from '@/core';
import { derivedFrom } from '../derived';
import { historyTable } from '../evidence/faults';
import { isServing } from '../serving';
import type { Snapshot } from '../snapshot';
import { keyAt } from '../window-columns';

/**
 * What is known of where the queries of an account run: rows of its history by ad group, and the habits that they tell of. Ad groups are
 * named by their index among those of the account.
 */
export type RunningPlaces = {
  habits: Habits;
  /** rows of history term h are from rowStarts[h] to before rowStarts[h + 1] */
  rowStarts: Uint32Array;
  /** of history row r: its ad group; −1 for one that is gone */
  adGroupOf: Int32Array;
  /** of history row r: what served it, as the habits name it */
  sourceOf: (row: number) => number;
  /** of history term h: the ad groups that serve, and of which a live keyword holds with it by its words */
  namedOf: (term: number) => readonly number[];
};

/** Places of an account, learnt from all days that are kept (rules 13.1). */
export const runningPlaces: (snapshot: Snapshot) => RunningPlaces = derivedFrom((snapshot: Snapshot) => {
  const { history, served } = snapshot;
  const { rows, terms } = history;
  const indexOf = new Map(served.adGroups.map(({ id }, g) => [Number(id), g]));
  const adGroupOf = Int32Array.from(rows.adGroupId, (id) => indexOf.get(id) ?? -1);
  const rowStarts = new Uint32Array(terms.count + 1);
  for (const t of rows.termOf) rowStarts[t + 1]! += 1;
  for (let t = 0; t < terms.count; t++) rowStarts[t + 1]! += rowStarts[t]!;
  // Ids of keywords and of ad groups are numbers of their own: the ad groups go below 0.
  const sourceOf = (r: number) => (rows.keywordId[r]! > 0 ? rows.keywordId[r]! : -1 - adGroupOf[r]!);
  const namedOf = namedIn(snapshot);
  const { accountGate } = snapshot;
  const openTo = (h: number) => {
    const named = namedOf(h);
    if (named.length === 0) return named;
    const negatives = accountGate.matching(keyAt(terms, h));
    return named.filter((g) => !negatives.some((id) => accountGate.isInForce(id, served.adGroups[g]!.id)));
  };
  const habits = learnHabits(
    {
      ...{ textOf: rows.termOf, adGroupOf, days: rows.days, impressions: rows.impressions },
      sourceOf: Int32Array.from({ length: rows.count }, (_, r) => sourceOf(r)),
    },
    openTo,
  );
  return { habits, rowStarts, adGroupOf, sourceOf, namedOf };
});

/** Serving ad groups by history term, where a live keyword matches it literally (rules 2). */
function namedIn(snapshot: Snapshot): (term: number) => readonly number[] {
  const { history, served, liveKeywords } = snapshot;
  const table = historyTable(history);
  const indexOf = new Map(served.adGroups.map(({ id }, g) => [id, g]));
  const starts = new Uint32Array(history.terms.count + 1);
  const pairs: { g: number; found: Uint32Array }[] = [];
  for (const { text, match, adGroup } of liveKeywords) {
    const g = indexOf.get(adGroup.id)!;
    if (!isServing(snapshot, g)) continue;
    const found = matchTexts(table, { text, match });
    pairs.push({ g, found });
    for (const t of found) starts[t + 1]! += 1;
  }
  for (let t = 0; t < history.terms.count; t++) starts[t + 1]! += starts[t]!;
  const ends = starts.slice();
  const named = new Uint32Array(starts.at(-1)!);
  for (const { g, found } of pairs) for (const t of found) named[ends[t]!++] = g;
  return (t) => [...new Set(named.subarray(starts[t]!, starts[t + 1]!))];
}
