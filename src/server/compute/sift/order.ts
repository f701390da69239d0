import {
  compareWithUndefinedLast,
  numbersTo,
  ratios,
  sortByMeasure,
  spendWithoutReturn,
  type Figures,
} from '@/core';
import type { Sort } from '@/contracts/sift';
import type { Snapshot, WindowFacts } from '../snapshot';
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
  const order = orderOf(snapshot, sorting, steering);
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
function orderOf(snapshot: Snapshot, { sort, direction }: Sorting, steering: Steering): Order {
  return sort === 'evidence'
    ? orderByEvidence(snapshot, { direction, steering })
    : orderBySums(snapshot.facts, { sort, direction, steersBy: steering.steersBy });
}

const orderByEvidence = derivedByKey(
  ({ direction, steering }: Pick<Sorting, 'direction'> & { steering: Steering }) =>
    `${direction} ${steeringKey(steering)}`,
  (snapshot: Snapshot, { steering, direction }) =>
    makeOrder(snapshot.facts, direction, (term, figures) =>
      probabilityOfMiss(snapshot, steering, { term, figures }),
    ),
);

type SortingBySums = { sort: Exclude<Sort, 'evidence'>; direction: Sorting['direction'] } & Pick<
  Steering,
  'steersBy'
>;

const orderBySums = derivedByKey(
  ({ sort, direction, steersBy }: SortingBySums) => `${sort} ${direction} ${steersBy}`,
  (facts: WindowFacts, { sort, direction, steersBy }) => {
    if (sort !== 'term') return makeOrder(facts, direction, (_, figures) => measure(sort, steersBy, figures));
    const ranks = textRanks(facts);
    return makeOrder(facts, direction, (term) => ranks[term]!);
  },
);

function makeOrder(
  facts: WindowFacts,
  direction: Sorting['direction'],
  measureOfTerm: (term: number, figures: Figures) => number,
): Order {
  const { count } = facts.terms;
  const sums = termSums({ facts });
  const measures = new Float64Array(count).map((_, t) =>
    kindAt(facts.terms, t) === 'unreported' ? NaN : measureOfTerm(t, figuresOfTerm(sums, t)),
  );
  const sign = direction === 'asc' ? 1 : -1;
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

/** What a part of a term is sorted by; NaN where it is undefined. */
function measureOf(snapshot: Snapshot, sort: Sort, steering: Steering, part: Part, order: Order): number {
  if (sort === 'term') return order.measures[part.term]!;
  if (sort === 'evidence') return probabilityOfMiss(snapshot, steering, part);
  return measure(sort, steering.steersBy, part.figures);
}

type SortBySums = Exclude<Sort, 'term' | 'evidence'>;

/** What figures are sorted by; NaN where it is undefined. */
function measure(sort: SortBySums, steersBy: Steering['steersBy'], figures: Figures): number {
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
      return (steersBy === 'CPA' ? cpaMicros : acos) ?? NaN;
    }
  }
}

/** The rank of each term in the order of their texts, by code points. */
function textRanks({ terms: { keys, keyStarts, count } }: WindowFacts): Float64Array {
  const bytes = Buffer.from(keys.buffer, keys.byteOffset, keys.byteLength);
  const sorted = new Uint32Array(count).map((_, t) => t);
  sorted.sort((a, b) => bytes.compare(bytes, keyStarts[b], keyStarts[b + 1], keyStarts[a], keyStarts[a + 1]));
  const ranks = new Float64Array(count);
  sorted.forEach((t, rank) => (ranks[t] = rank));
  return ranks;
}
