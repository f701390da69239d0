import { matchTexts, type NegativeText } from '@/core';
import type { Snapshot } from '../snapshot';
import { keywordsStoppedBy, type StoppedKeyword, type Workbench } from '../workbench';
import { derivedFrom } from '../derived';

/** What an entry does wherever it acts. */
type EntryReach = {
  /** indexes of the terms of the window that it stops */
  terms: Uint32Array;
  keywords: readonly StoppedKeyword[];
};

const reachesOf = derivedFrom((_: Snapshot) => new Map<string, EntryReach>());
/**
 * What an entry reaches is cached by the entry itself, because entries of lists live long. The cache lets go of an
 * entry that was only tried.
 */
const MOST_KNOWN = 500_000;

/** What an entry stops in a window. Cached. */
export function reachOfEntry(bench: Workbench, entry: NegativeText): EntryReach {
  const { snapshot } = bench;
  const entries = reachesOf(snapshot);
  if (entries.size > MOST_KNOWN) entries.clear();
  const key = `${entry.match} ${entry.text}`;
  let reach = entries.get(key);
  if (!reach) {
    const terms = matchTexts(snapshot.served.table, entry).slice();
    entries.set(key, (reach = { terms, keywords: keywordsStoppedBy(bench, entry) }));
  }
  return reach;
}

/** The rows that a list's entries stop wherever it hangs, ascending, each once. */
export function rowsOfEntries(bench: Workbench, entries: readonly NegativeText[]): number[] {
  const { served } = bench.snapshot;
  const terms = new Set<number>();
  for (const entry of entries) for (const t of reachOfEntry(bench, entry).terms) terms.add(t);
  const rows: number[] = [];
  for (const t of [...terms].sort((a, b) => a - b))
    for (let r = served.rowStarts[t]!; r < served.rowStarts[t + 1]!; r++) rows.push(r);
  return rows;
}

/** Live keywords that entries shut out or narrow on each campaign, if they act there; by campaign id. */
export function hurtsByCampaign(bench: Workbench, entries: readonly NegativeText[]): Map<string, number> {
  const keywords = new Set(
    entries.flatMap((entry) => reachOfEntry(bench, entry).keywords.map(({ keyword }) => keyword)),
  );
  const hurts = new Map<string, number>();
  for (const { adGroup } of keywords) hurts.set(adGroup.campaignId, (hurts.get(adGroup.campaignId) ?? 0) + 1);
  return hurts;
}
