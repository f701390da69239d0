import type { BesideFigures, TwoWindows } from '@/contracts/common';
import { COLUMN, figureAt } from '../figure-columns';
import { indexOfTerm, type Snapshot } from '../snapshot';
import { termSums } from '../term-sums';
import type { Found } from './lines';

/**
 * All of a term in two windows, whatever pile its rows lie on: only so are the figures of the same thing.
 * @param t index of the term in the first window
 */
export function besideOf(snapshot: Snapshot, beside: Snapshot, t: number): TwoWindows {
  return {
    now: figuresAt(snapshot, t),
    then: figuresAt(beside, indexOfTerm(beside, snapshot.terms.ids[t]!)),
  };
}

/** The sums of all terms of a view. */
export function besideOfAll(
  snapshot: Snapshot,
  beside: Snapshot,
  { lines }: Pick<Found, 'lines'>,
): TwoWindows {
  const sums: TwoWindows = { now: { ...NOTHING }, then: { ...NOTHING } };
  const take = (t: number) => {
    const { now, then } = besideOf(snapshot, beside, t);
    add(sums.now, now);
    add(sums.then, then);
  };
  lines.whole.forEach(take);
  for (const { term } of lines.parts) take(term);
  return sums;
}

const NOTHING: BesideFigures = { clicks: 0, costMicros: 0, conversions: 0 };

function figuresAt(snapshot: Snapshot, t: number | undefined): BesideFigures {
  if (t === undefined) return NOTHING;
  const { figures } = termSums(snapshot);
  const at = (column: Parameters<typeof figureAt>[2]) => figureAt(figures, t, column) || 0;
  return {
    clicks: at(COLUMN.clicks),
    costMicros: at(COLUMN.costMicros),
    conversions: at(COLUMN.conversions),
  };
}

function add(sum: BesideFigures, one: BesideFigures): void {
  sum.clicks += one.clicks;
  sum.costMicros += one.costMicros;
  sum.conversions += one.conversions;
}
