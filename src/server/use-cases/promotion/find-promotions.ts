import {
  breakEvenCvr,
  noFigures,
  probabilityMissesTarget,
  ratios,
  type Figures,
  type PromotionPlan,
} from '@/core';
import { derivedByKey, derivedFrom } from '../../compute/derived';
import { groundOf } from '../../compute/evidence/evidence';
import { allDaysOf } from '../../compute/history/all-days';
import type { History } from '../../compute/history/history';
import type { Group } from '../../compute/promotion/groups';
import { addRow, conversionsAt, keyAt, kindAt } from '../../compute/window-columns';
import type { Deps } from '../deps';
import type { Open } from '../open-workbench';
import type { FoundKnot } from '../untangle/knots/piles';
import { planningOf, planTerm } from './planning';

/** A search term that converted in a group, and what is missing there. */
export type Promotion = {
  term: string;
  group: Group;
  figures: Figures;
  /** of the term in the group; indexes in the window */
  rows: readonly number[];
  isExact: boolean;
  plan: PromotionPlan;
};

/**
 * Terms that had so many conversions in a group and for which a plan would make something, those of most value first. A product
 * code can be no keyword.
 */
export const findPromotions = derivedByKey(String, (open: Open, conversions: number): Promotion[] =>
  findConverting(open, conversions).filter(({ isExact, plan }) => !isExact || plan.parts.length > 0),
);

/** All terms that had so many conversions in a group, those of most value first. */
export const findConverting = derivedByKey(String, (open: Open, conversions: number): Promotion[] => {
  const { isExactIn } = planningOf(open);
  return convertingIn(open)
    .filter(({ figures }) => (figures.conversions ?? 0) >= conversions)
    .map((one) => {
      const plan = planTerm(open, one.group, one.term, one.rows);
      const isExact = isExactIn(one.group, one.term);
      // Beside an exact keyword of the group that is no seat a second one would compete with it.
      return { ...one, isExact, plan: isExact && !isSeated(plan) ? { ...plan, parts: [] } : plan };
    })
    .sort((a, b) => worthOf(b.figures) - worthOf(a.figures) || (a.term < b.term ? -1 : 1));
});

const isSeated = ({ standing }: PromotionPlan) =>
  standing.some(({ kind, at }) => kind === 'keyword' && at === 'exact');

const worthOf = ({ valueMicros, conversions }: Figures) => valueMicros ?? conversions ?? 0;

export type Converting = Omit<Promotion, 'isExact' | 'plan'>;

/** Terms that converted at all in a group, with their figures there. */
export const convertingIn = derivedFrom((open: Open): Converting[] => {
  const { snapshot } = open;
  const { terms, rows, served } = snapshot;
  const { groupOf } = planningOf(open);
  const ofAdGroup = served.adGroups.map(({ id }) => groupOf.get(id));
  const found: Converting[] = [];
  for (let t = 0; t < terms.count; t++) {
    if (kindAt(terms, t) !== 'query') continue;
    const [first, end] = [served.rowStarts[t]!, served.rowStarts[t + 1]!];
    let brought = 0;
    for (let r = first; r < end; r++) brought += conversionsAt(rows, r) || 0;
    if (!(brought > 0)) continue;
    const byGroup = new Map<Group, { figures: Figures; rows: number[] }>();
    for (let r = first; r < end; r++) {
      const group = ofAdGroup[served.adGroupOf[r]!];
      if (!group) continue;
      let sum = byGroup.get(group);
      if (!sum) byGroup.set(group, (sum = { figures: noFigures(), rows: [] }));
      addRow(sum.figures, rows, r);
      sum.rows.push(r);
    }
    const term = keyAt(terms, t);
    for (const [group, sum] of byGroup)
      if ((sum.figures.conversions ?? 0) > 0) found.push({ term, group, ...sum });
  }
  return found;
});

/** Names a term in a group, so that it can be left as it is. */
export const keyOfPromotion = ({ term, group }: Pick<Promotion, 'term' | 'group'>) =>
  `${group.key} → ${term}`;

/** How a term is in a group: its conversions there on all days that are kept. */
export const stateOfPromotion = (open: Open, one: Converting) =>
  String(everBrought(open, one)?.conversions ?? 0);

/** Terms that converted in a group, by their keys. */
export function promotionsNamed(_: Deps, open: Open, keys: readonly string[]): FoundKnot[] {
  const wanted = new Set(keys);
  return convertingIn(open)
    .filter((one) => wanted.has(keyOfPromotion(one)))
    .map((one) => ({
      ...{ key: keyOfPromotion(one), state: stateOfPromotion(open, one) },
      says: `“${one.term}” in ${one.group.name}, which is not to be promoted`,
      ...{ costMicros: one.figures.costMicros ?? 0, conversions: one.figures.conversions ?? 0 },
    }));
}

/** How sure it is that a term reaches the target of a group there, by all days that are kept (rules 7.3); null where that is undefined. */
export function sureToReach(open: Open, one: Converting): number | null {
  const { snapshot } = open;
  const { group, figures } = one;
  const { prior, cpcMicros, meanValueMicros } = groundOf(snapshot);
  const { target } = group;
  if (prior === null || target === null) return null;
  const rate = breakEvenCvr(
    ratios(figures).cpcMicros ?? cpcMicros,
    target.by === 'CPA' ? target : { ...target, meanValueMicros },
  );
  const ever = everBrought(open, one);
  if (rate === null || ever === null || ever.clicks === 0) return null;
  return 1 - probabilityMissesTarget({ ...prior, breakEvenCvr: rate, ...ever });
}

/** What a term brought in a group on all days that are kept; null where they do not know it. */
function everBrought(
  { snapshot }: Open,
  { group, rows }: Converting,
): { clicks: number; conversions: number } | null {
  const { history } = snapshot;
  const h = allDaysOf(snapshot).indexOf[snapshot.rows.termOf[rows[0]!]!]!;
  if (h < 0) return null;
  const within = new Set(group.adGroupIds.map(Number));
  const starts = rowStartsOf(history);
  const sum = { clicks: 0, conversions: 0 };
  for (let r = starts[h]!; r < starts[h + 1]!; r++) {
    if (!within.has(history.rows.adGroupId[r]!)) continue;
    sum.clicks += history.rows.clicks[r]! || 0;
    sum.conversions += history.rows.conversions[r]! || 0;
  }
  return sum;
}

const rowStartsOf = derivedFrom(({ terms, rows }: History): Uint32Array => {
  const starts = new Uint32Array(terms.count + 1);
  for (let r = 0; r < rows.count; r++) starts[rows.termOf[r]! + 1]! += 1;
  for (let t = 0; t < terms.count; t++) starts[t + 1]! += starts[t]!;
  return starts;
});
