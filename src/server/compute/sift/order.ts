import {
  compareWithUndefinedLast,
  numbersTo,
  ratios,
  sortByMeasure,
  spendWithoutReturn,
  type Figures,
} from '@/core';
import type { Sort } from '@/contracts/sift';
import type { Snapshot } from '../snapshot';
import { figuresOfTerm, termSums } from '../term-sums';
import { kindAt } from '../window-columns';
import { probabilityOfMiss } from '../evidence/evidence';
import type { Steering } from '../evidence/row-targets';
import type { Lines, Part } from './lines';
import { derivedByKey } from '../derived';
import { figureAt, COLUMN } from '../figure-columns';
import { steeringKey } from '../evidence/row-targets';

/** A line of the table: a term, and the figures of its part where not all its rows belong to the view. */
export type OrderedLine = { term: number; figures: Figures };
export type Ordered = { length: number; at(index: number): OrderedLine };
export type Sorting = { sort: Sort; direction: 'asc' | 'desc' };

type Order = {
  /** what is sorted by, of each term; NaN where it is undefined */
  measures: Float64Array;
  /** terms in order, and the rank of each */
  terms: Uint32Array;
  rankOf: Uint32Array;
};

/**
 * Sorts lines. Equal lines stand costliest first, then in the order of their first appearance, so that pages never
 * overlap.
 */
export function orderLines(
  snapshot: Snapshot,
  { whole, parts }: Lines,
  sorting: Sorting,
  steering: Steering,
): Ordered {
  const order = orderOf(snapshot, { ...sorting, steering });
  const sums = termSums(snapshot);
  const terms = inOrder(order, whole);
  const sorted = parts
    .map((part) => ({ part, measure: measureOf(snapshot, sorting.sort, steering, part, order) }))
    .sort((a, b) => compareStandings(standingOf(a), standingOf(b), sorting));
  const wholeAt = (i: number) => ({ term: terms[i]!, figures: figuresOfTerm(sums, terms[i]!) });
  if (sorted.length === 0) return { length: terms.length, at: wholeAt };

  // Two sorted runs into one: which of them each line is taken from.
  const merged = new Int32Array(terms.length + sorted.length);
  for (let at = 0, w = 0, p = 0; at < merged.length; at++) {
    const takesPart =
      p < sorted.length &&
      (w === terms.length ||
        compareStandings(standingOf(sorted[p]!), standingOfTerm(order, sums, terms[w]!), sorting) < 0);
    merged[at] = takesPart ? -1 - p++ : w++;
  }
  return {
    length: merged.length,
    at: (i) => (merged[i]! < 0 ? sorted[-1 - merged[i]!]!.part : wholeAt(merged[i]!)),
  };
}

/** All terms of a window in the order of their sums; each order is made once. */
const orderOf = derivedByKey(
  ({ sort, direction, steering }: Sorting & { steering: Steering }) =>
    `${sort} ${direction} ${steeringKey(steering)}`,
  makeOrder,
);

function makeOrder(snapshot: Snapshot, { steering, ...sorting }: Sorting & { steering: Steering }): Order {
  const { count } = snapshot.terms;
  const sums = termSums(snapshot);
  const { sort } = sorting;
  const measures =
    sort === 'term'
      ? textRanks(snapshot)
      : new Float64Array(count).map((_, t) => {
          if (kindAt(snapshot.terms, t) === 'unreported') return NaN;
          return measure(snapshot, sort, steering, { term: t, figures: figuresOfTerm(sums, t) });
        });
  const sign = sorting.direction === 'asc' ? 1 : -1;
  // By what matters least first: each sorting keeps the order of the one before where it finds equals.
  const byCost = sortByMeasure(
    numbersTo(count),
    new Float64Array(count).map((_, t) => -(figureAt(sums.figures, t, COLUMN.costMicros) || 0)),
  );
  const terms = sortByMeasure(
    byCost,
    measures.map((value) => sign * value),
  );
  const order = { measures, terms, rankOf: new Uint32Array(count) };
  for (let i = 0; i < count; i++) order.rankOf[order.terms[i]!] = i;
  return order;
}

/** Some of the terms, in order. Few terms are sorted by their ranks; many are picked out of the order of all. */
function inOrder({ terms, rankOf }: Order, chosen: Uint32Array): Uint32Array {
  if (chosen.length * 16 < terms.length) {
    const ranks = chosen.map((t) => rankOf[t]!).sort();
    return ranks.map((rank) => terms[rank]!);
  }
  const isChosen = new Uint8Array(terms.length);
  for (const t of chosen) isChosen[t] = 1;
  return terms.filter((t) => isChosen[t] === 1);
}

type Standing = { measure: number; cost: number; term: number };
const standingOf = ({ part, measure }: { part: Part; measure: number }): Standing => ({
  ...{ measure, cost: part.figures.costMicros ?? 0, term: part.term },
});
const standingOfTerm = (
  { measures }: Order,
  { figures }: { figures: Float64Array },
  term: number,
): Standing => ({
  ...{ measure: measures[term]!, cost: figureAt(figures, term, COLUMN.costMicros) || 0, term },
});

function compareStandings(a: Standing, b: Standing, { direction }: Sorting): number {
  const known = (value: number) => (Number.isNaN(value) ? null : value);
  return (
    compareWithUndefinedLast(known(a.measure), known(b.measure), direction) ||
    b.cost - a.cost ||
    a.term - b.term
  );
}

function measureOf(snapshot: Snapshot, sort: Sort, steering: Steering, part: Part, order: Order) {
  return sort === 'term' ? order.measures[part.term]! : measure(snapshot, sort, steering, part);
}

/** What a line is sorted by; NaN where it is undefined. */
function measure(
  snapshot: Snapshot,
  sort: Exclude<Sort, 'term'>,
  steering: Steering,
  { term, figures }: Part,
): number {
  switch (sort) {
    case 'without':
      return spendWithoutReturn(figures);
    case 'cost':
      return figures.costMicros ?? NaN;
    case 'clicks':
      return figures.clicks ?? NaN;
    case 'impressions':
      return figures.impressions ?? NaN;
    case 'conversions':
      return figures.conversions ?? NaN;
    case 'target': {
      const { cpaMicros, acos } = ratios(figures);
      return (steering.steersBy === 'CPA' ? cpaMicros : acos) ?? NaN;
    }
    case 'evidence':
      return probabilityOfMiss(snapshot, steering, { term, figures });
  }
}

/** The rank of each term in the order of their texts, by code points. */
function textRanks({ terms: { keys, keyStarts, count } }: Snapshot): Float64Array {
  const bytes = Buffer.from(keys.buffer, keys.byteOffset, keys.byteLength);
  const sorted = new Uint32Array(count).map((_, t) => t);
  sorted.sort((a, b) => bytes.compare(bytes, keyStarts[b], keyStarts[b + 1], keyStarts[a], keyStarts[a + 1]));
  const ranks = new Float64Array(count);
  sorted.forEach((t, rank) => (ranks[t] = rank));
  return ranks;
}
