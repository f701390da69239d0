import { shiftDay, type Window } from '@/core';
import type { DaySpend } from '../../repositories/facts';
import { addFiguresInto, COLUMN, FIGURE_COUNT } from '../figure-columns';
import { shared } from '../shared-columns';
import type { RowColumns, TermColumns } from '../window-columns';
import { dayOf, eachTerm, type Facts } from './facts';
import { pickTerms } from './pick-terms';

/** What was served in a window, in columns that threads share. */
export type WindowColumns = {
  rows: RowColumns;
  terms: TermColumns;
  /** spend of each day of the window on which anything is known */
  days: DaySpend[];
};

/** Sums the facts of a window by term, ad group and keyword. */
export function sumWindow(facts: Facts, window: Window): WindowColumns {
  const { day, adGroupId, keywordId, figures } = facts;
  const [from, to] = [dayOf(window.from), dayOf(window.to)];
  const isIn = (fact: number) => day[fact]! >= from && day[fact]! <= to;
  const rows = rowsFor(facts.count);
  const spend = spendOfDays(from, to);
  const termIds = new Int32Array(facts.count);
  let terms = 0;

  eachTerm(facts, (id, begin, end) => {
    const first = rows.count();
    let [lastGroup, lastKeyword] = [-1, -1];
    for (let fact = begin; fact < end; fact++) {
      if (!isIn(fact)) continue;
      const [adGroup, keyword] = [adGroupId[fact]!, keywordId[fact]!];
      if (adGroup !== lastGroup || keyword !== lastKeyword) rows.open(terms, adGroup, keyword);
      rows.add(day[fact]!, figures, fact);
      [lastGroup, lastKeyword] = [adGroup, keyword];
    }
    if (rows.count() === first) return; // nothing in these days
    termIds[terms++] = id;
    const returned = rows.sumSince(first, COLUMN.conversions) > 0;
    for (let fact = begin; fact < end; fact++) {
      if (isIn(fact)) spend.add(day[fact]!, figures[FIGURE_COUNT * fact + COLUMN.costMicros]! || 0, returned);
    }
  });
  return {
    rows: rows.finish(),
    terms: pickTerms(facts.terms, termIds.subarray(0, terms)),
    days: spend.finish(),
  };
}

/** Rows that are opened one after another, each summed before the next is opened. */
function rowsFor(most: number) {
  const [termOf, adGroupId, keywordId] = [
    new Uint32Array(most),
    new Uint32Array(most),
    new Uint32Array(most),
  ];
  const lastDay = new Uint32Array(most);
  const figures = new Float64Array(FIGURE_COUNT * most).fill(NaN);
  let count = 0;
  return {
    count: () => count,
    open(term: number, adGroup: number, keyword: number) {
      termOf[count] = term;
      adGroupId[count] = adGroup;
      keywordId[count] = keyword;
      count += 1;
    },
    /** Adds a fact into the row that was opened last. */
    add(day: number, from: Float64Array, fact: number) {
      if (day > lastDay[count - 1]!) lastDay[count - 1] = day;
      addFiguresInto(figures, count - 1, from, fact);
    },
    sumSince(first: number, column: number): number {
      let sum = 0;
      for (let row = first; row < count; row++) sum += figures[FIGURE_COUNT * row + column]! || 0;
      return sum;
    },
    finish: (): RowColumns => ({
      count,
      termOf: shared(termOf, count),
      adGroupId: shared(adGroupId, count),
      keywordId: shared(keywordId, count),
      lastDay: shared(lastDay, count),
      figures: shared(figures, FIGURE_COUNT * count),
    }),
  };
}

/** Costs of each day, and of terms that converted. */
function spendOfDays(from: number, to: number) {
  const days = Math.max(0, to - from + 1);
  const [cost, returned, isKnown] = [new Float64Array(days), new Float64Array(days), new Uint8Array(days)];
  return {
    add(day: number, costMicros: number, isReturned: boolean) {
      isKnown[day - from] = 1;
      cost[day - from]! += costMicros;
      if (isReturned) returned[day - from]! += costMicros;
    },
    finish: (): DaySpend[] =>
      Array.from(isKnown, (known, d) => ({
        ...{ known, day: shiftDay('1970-01-01', from + d) },
        ...{ costMicros: cost[d]!, returnedMicros: returned[d]! },
      }))
        .filter(({ known }) => known === 1)
        .map(({ day, costMicros, returnedMicros }) => ({ day, costMicros, returnedMicros })),
  };
}
