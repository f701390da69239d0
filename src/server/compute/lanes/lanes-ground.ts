import { covers, type LanesGround, type NegativeText, type PlacedNegative, type ServedQuery } from '@/core';
import { derivedFrom } from '../derived';
import { draftGateOf } from '../draft-gate';
import { COLUMN, figureAt } from '../figure-columns';
import { keyAt, kindAt } from '../window-columns';
import type { Snapshot } from '../snapshot';
import type { Workbench } from '../workbench';
import type { PlacedTier } from './lanes-in-use';

type Draft = Pick<Workbench, 'draft'>;

/** Negatives as the tray leaves the account, by their ids. */
export const negativesOf = derivedFrom(
  ({ draft }: Draft): ReadonlyMap<string, PlacedNegative> =>
    new Map(draft.gate.shape().negatives.map((negative) => [negative.id, negative])),
);

/**
 * The negatives that stop a query in a tier, as the tray leaves the account: none where one of its ad groups that serve
 * lets the query in.
 */
export function stoppersIn(bench: Draft, tiers: readonly PlacedTier[]): LanesGround['stoppers'] {
  const gate = draftGateOf(bench);
  const negatives = negativesOf(bench);
  return (tier, query) => {
    const found = new Set<string>();
    for (const adGroup of tiers[tier]!.serving) {
      const ids = gate.stoppers(query, adGroup);
      if (ids.length === 0) return [];
      for (const id of ids) found.add(id);
    }
    return [...found].map((id) => negatives.get(id)!);
  };
}

/** Places of a tier in which one of its ad groups that serve lets through what a negative should stop. */
export function lacking(
  bench: Draft & { snapshot: Snapshot },
  { places, serving }: PlacedTier,
  negative: NegativeText,
): PlacedTier['places'] {
  const gate = draftGateOf(bench);
  const negatives = negativesOf(bench);
  const lets = (adGroup: string) =>
    !gate.stoppers(negative.text, adGroup).some((id) => covers(negatives.get(id)!, negative));
  return places.filter(({ kind, id }) =>
    serving.some(
      (adGroup) =>
        (kind === 'adGroup' ? adGroup === id : bench.snapshot.adGroup.get(adGroup)?.campaignId === id) &&
        lets(adGroup),
    ),
  );
}

/** The queries that tiers served in the window, once for each tier that did. */
export function queriesServed(
  { rows, terms, served }: Snapshot,
  tiers: readonly PlacedTier[],
): ServedQuery[] {
  const tierOf = new Map(tiers.flatMap(({ adGroups }, tier) => adGroups.map((id) => [id, tier] as const)));
  const tierAt = served.adGroups.map(({ id }) => tierOf.get(id) ?? -1);
  const found: ServedQuery[] = [];
  // Rows stand by term, so that those of one query are neighbours.
  let [term, query] = [-1, ''];
  const newest: (ServedQuery | undefined)[] = [];
  for (let r = 0; r < rows.count; r++) {
    const tier = tierAt[served.adGroupOf[r]!]!;
    const t = rows.termOf[r]!;
    if (tier < 0 || kindAt(terms, t) !== 'query') continue;
    if (t !== term) {
      [term, query] = [t, keyAt(terms, t)];
      newest.fill(undefined);
    }
    const conversions = figureAt(rows.figures, r, COLUMN.conversions);
    let sum = newest[tier];
    if (!sum) {
      newest[tier] = sum = { query, tier, clicks: 0, costMicros: 0, conversions: null };
      found.push(sum);
    }
    sum.clicks += figureAt(rows.figures, r, COLUMN.clicks) || 0;
    sum.costMicros += figureAt(rows.figures, r, COLUMN.costMicros) || 0;
    if (!Number.isNaN(conversions)) sum.conversions = (sum.conversions ?? 0) + conversions;
  }
  return found;
}
