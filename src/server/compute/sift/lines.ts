import { ratios, noFigures, addFigures, type Figures } from '@/core';
import { parseRegion, SIFT_VIEWS, type Served, type SiftFilters, type SiftView } from '@/contracts/sift';
import type { Weight } from '@/contracts/common';
import type { Snapshot } from '../snapshot';
import { figuresOfTerm, termSums } from '../term-sums';
import { addRow, kindAt } from '../window-columns';
import type { Workbench } from '../workbench';
import { missOfTerms, probabilityOfMiss, SURE } from '../evidence/evidence';
import { steeringOfTerm, type Steering } from '../evidence/row-targets';
import { pickTerms, type PassKnown } from './pick-terms';
import { viewIndex, viewsOf } from './views';

/**
 * The lines of one view, one a term. Most terms have all their rows on one pile, so their line carries the sums of the
 * term. The line of any other term carries the sums of those rows that lie on this pile.
 */
export type Lines = {
  whole: Uint32Array;
  parts: readonly Part[];
};
export type Part = { term: number; figures: Figures };

export type Found = {
  /** lines of each view under the same filters */
  counts: Record<SiftView, number>;
  /** of all lines of the view */
  sums: Weight;
  lines: Lines;
};

/** All lines of the view that pass the filters, and how many lines each other view has. */
export function findLines(
  bench: Workbench,
  filters: SiftFilters,
  steering: Steering,
  pass: PassKnown | null,
): Found {
  const { snapshot } = bench;
  const { terms } = snapshot;
  const views = viewsOf(bench);
  const sums = termSums(snapshot);
  const picked = pickTerms(bench, filters, pass);
  const mayRow = pickRows(snapshot, filters);
  const passes = figuresTest(snapshot, filters, steering);
  const wanted = viewIndex(filters.view);
  const counts = SIFT_VIEWS.map(() => 0);
  const whole: number[] = [];
  const parts: Part[] = [];
  const total: Weight = { terms: 0, ...noFigures() };
  const take = (figures: Figures) => {
    total.terms += 1;
    addFigures(total, figures);
  };
  for (let t = 0; t < terms.count; t++) {
    if (picked && picked[t] === 0) continue;
    if (kindAt(terms, t) === 'unreported') continue; // shown beside the total, it is no term
    const on = views.ofTerm[t]!;
    const pile = 31 - Math.clz32(on);
    if (!mayRow && on === 1 << pile) {
      const figures = figuresOfTerm(sums, t);
      if (!passes(figures, t, true)) continue;
      counts[pile]! += 1;
      if (pile !== wanted) continue;
      whole.push(t);
      take(figures);
      continue;
    }
    for (const [v, figures] of split(snapshot, views.ofRow, t, mayRow)) {
      if (!passes(figures, t, false)) continue;
      counts[v]! += 1;
      if (v !== wanted) continue;
      parts.push({ term: t, figures });
      take(figures);
    }
  }
  return {
    counts: Object.fromEntries(SIFT_VIEWS.map((view, v) => [view, counts[v]!])) as Found['counts'],
    sums: total,
    lines: { whole: Uint32Array.from(whole), parts },
  };
}

/** The sums of a term's rows on each pile that it lies on. */
function split(
  { rows, served }: Snapshot,
  pileOf: Uint8Array,
  t: number,
  mayRow: Uint8Array | null,
): Map<number, Figures> {
  const piles = new Map<number, Figures>();
  for (let r = served.rowStarts[t]!; r < served.rowStarts[t + 1]!; r++) {
    if (mayRow && mayRow[r] === 0) continue;
    let sum = piles.get(pileOf[r]!);
    if (!sum) piles.set(pileOf[r]!, (sum = noFigures()));
    addRow(sum, rows, r);
  }
  return piles;
}

/** Rows that pass the filters which ask where and by what a term was served; null when all do. */
export function pickRows(
  { rows, served, keyword }: Snapshot,
  { campaign, served: by }: Pick<SiftFilters, 'campaign' | 'served'>,
): Uint8Array | null {
  if (campaign === '' && by === 'any') return null;
  const inCampaign = served.adGroups.map((g) => campaign === '' || g.campaignId === campaign);
  const fits = new Map<number, boolean>();
  const isServed = (keywordId: number): boolean => {
    let fit = fits.get(keywordId);
    if (fit === undefined)
      fits.set(keywordId, (fit = servedBy(by, keyword.get(String(keywordId))?.match ?? 'unknown')));
    return fit;
  };
  return Uint8Array.from({ length: rows.count }, (_, r) =>
    inCampaign[served.adGroupOf[r]!] && isServed(rows.keywordId[r]!) ? 1 : 0,
  );
}

function servedBy(by: Served, match: string): boolean {
  if (by === 'any') return true;
  return by === 'loose' ? match === 'broad' || match === 'automatic' : match === by;
}

/** @returns whether figures of a term pass; `isWhole` where they are those of all its rows */
function figuresTest(
  snapshot: Snapshot,
  filters: SiftFilters,
  steering: Steering,
): (figures: Figures, term: number, isWhole: boolean) => boolean {
  const { clicks: least, returns, evidence } = filters;
  const region = parseRegion(filters.region);
  const isOver = (figures: Figures, term: number) =>
    isOverTarget(figures, steeringOfTerm(snapshot, steering, term));
  const missOf = missOfTerms(snapshot, steering);
  const isSure = (figures: Figures, term: number, isWhole: boolean) =>
    (isWhole ? missOf(term) : probabilityOfMiss(snapshot, steering, { term, figures })) >= SURE;
  return (figures, term, isWhole) => {
    const { clicks, conversions } = figures;
    if ((clicks ?? 0) < least) return false;
    if (region) {
      if (clicks === null || conversions === null) return false;
      if (clicks < region.clicks[0] || clicks > region.clicks[1]) return false;
      if (conversions < region.conversions[0] || conversions > region.conversions[1]) return false;
    }
    if (evidence === 'sure' && !isSure(figures, term, isWhole)) return false;
    switch (returns) {
      case 'any':
        return true;
      case 'none':
        return conversions === 0;
      case 'over':
        return isOver(figures, term);
      case 'either':
        return conversions === 0 || isOver(figures, term);
    }
  };
}

/** Rules 7.2: conversions without any value count as over an ACoS target. */
export function isOverTarget(figures: Figures, { steersBy, targetMicros, targetAcos }: Steering): boolean {
  if ((figures.conversions ?? 0) <= 0) return false;
  const { cpaMicros, acos } = ratios(figures);
  if (steersBy === 'CPA') return targetMicros !== null && cpaMicros !== null && cpaMicros > targetMicros;
  return targetAcos !== null && (acos === null || acos > targetAcos);
}

/** The lines in the form over which the core counts n-grams; product codes are left out (rules 7.5). */
export function queriesOf({ snapshot }: Workbench, { whole, parts }: Lines): ({ term: number } & Figures)[] {
  const sums = termSums(snapshot);
  const queries: ({ term: number } & Figures)[] = [];
  for (const term of whole)
    if (kindAt(snapshot.terms, term) === 'query') {
      const { impressions, clicks, costMicros, conversions, valueMicros } = figuresOfTerm(sums, term);
      queries.push({ term, impressions, clicks, costMicros, conversions, valueMicros });
    }
  for (const { term, figures } of parts)
    if (kindAt(snapshot.terms, term) === 'query') queries.push({ term, ...figures });
  return queries;
}
