import { extent } from 'd3-array';
import { countingSort, grown, numbersTo, orderBy, type Figures, type Period } from '@/core';
import { dayNumber } from '../../db/copy';

/** Rows of a report as numbers, each a record in one piece: as they were read, or summed. */
export type RowRecords = {
  count: number;
  /**
   * Row r is records[8r .. 8r + 8): its day as a number (`dayNumber`); its keyword and its term by the report's own
   * numbers (see `ReportTexts`); its five figures in the order of the facts, NaN where unknown.
   */
  records: Float64Array;
};

/** Where in a record a value stands; figures follow one another. */
export const [DAY, KEYWORD, TERM, FIGURES, RECORD] = [0, 1, 2, 3, 8];

/** Rows that are gathered one by one. */
export type ReportRows = {
  readonly count: number;
  /** @param day YYYY-MM-DD */
  add(day: string, keyword: number, term: number, figures: Figures): void;
  /** The first and the last day of all rows that were ever added, null when none was. */
  span(): Period | null;
  /** As many as there are, in the order in which they came. */
  read(): RowRecords;
  clear(): void;
};

export function createReportRows(): ReportRows {
  let records = new Float64Array(RECORD << 10);
  let count = 0;
  const daysKnown = new Map<string, number>();

  function dayOf(text: string): number {
    let known = daysKnown.get(text);
    if (known === undefined) daysKnown.set(text, (known = dayNumber(text)));
    return known;
  }

  return {
    get count() {
      return count;
    },
    add(day, keyword, term, figures) {
      const at = RECORD * count++;
      if (at === records.length) records = grown(records, 2 * at);
      records[at + DAY] = dayOf(day);
      records[at + KEYWORD] = keyword;
      records[at + TERM] = term;
      // Written out: a million rows come this way.
      records[at + FIGURES] = figures.impressions ?? NaN;
      records[at + FIGURES + 1] = figures.clicks ?? NaN;
      records[at + FIGURES + 2] = figures.costMicros ?? NaN;
      records[at + FIGURES + 3] = figures.conversions ?? NaN;
      records[at + FIGURES + 4] = figures.valueMicros ?? NaN;
    },
    span() {
      const [from, to] = extent(daysKnown.keys());
      return from === undefined ? null : { from, to };
    },
    read: () => ({ count, records }),
    clear: () => void (count = 0),
  };
}

/** Ranks from 0: keyword k has rank keywords[k], term t has rank terms[t]. Things of one rank are the same thing. */
export type Ranks = { keywords: Uint32Array; terms: Uint32Array };

/**
 * Rows sorted by day, keyword and term, with rows of one key summed. Unknown plus unknown stays unknown; unknown plus a
 * number is the number. Different term numbers mean different terms; keywords that share a rank are the same keyword.
 */
export function sumRows(rows: RowRecords, ranks: Ranks): RowRecords {
  const { records } = rows;
  const sums = new Float64Array(RECORD * rows.count);
  let end = 0; // of the sums
  const isOfLast = (at: number) => {
    const last = end - RECORD;
    return (
      last >= 0 &&
      sums[last + TERM] === records[at + TERM] &&
      sums[last + DAY] === records[at + DAY] &&
      ranks.keywords[sums[last + KEYWORD]!] === ranks.keywords[records[at + KEYWORD]!]
    );
  };
  const order = orderOf(rows, ranks);
  for (let i = 0; i < order.length; i++) {
    const at = RECORD * order[i]!;
    if (!isOfLast(at)) {
      for (let part = 0; part < RECORD; part++) sums[end + part] = records[at + part]!;
      end += RECORD;
    } else {
      for (let part = FIGURES; part < RECORD; part++) {
        const [sum, value] = [sums[end - RECORD + part]!, records[at + part]!];
        sums[end - RECORD + part] = Number.isNaN(sum) ? value : Number.isNaN(value) ? sum : sum + value;
      }
    }
  }
  return { count: end / RECORD, records: sums };
}

/** Rows in order: by what matters least first, each pass keeping the order of the one before where it finds equals. */
function orderOf({ count, records }: RowRecords, ranks: Ranks): Uint32Array {
  const [term, keyword, day] = [new Uint32Array(count), new Uint32Array(count), new Uint32Array(count)];
  let first = Infinity;
  for (let row = 0; row < count; row++) first = Math.min(first, records[RECORD * row + DAY]!);
  for (let row = 0; row < count; row++) {
    const at = RECORD * row;
    term[row] = ranks.terms[records[at + TERM]!]!;
    keyword[row] = ranks.keywords[records[at + KEYWORD]!]!;
    day[row] = records[at + DAY]! - first;
  }
  return [term, keyword, day].reduce(countingSort, numbersTo(count));
}

/**
 * The rank of each of some things; equal things share a rank.
 * @param columns what they are ordered by, the first of them first: whole numbers of 0 or more
 * @example ranksOf(Int32Array.of(7, 3, 7)) // Uint32Array.of(1, 0, 1)
 */
export function ranksOf(...columns: readonly Int32Array[]): Uint32Array {
  const order = orderBy(...columns);
  const ranks = new Uint32Array(order.length);
  for (let i = 1; i < order.length; i++) {
    const isNew = columns.some((column) => column[order[i]!] !== column[order[i - 1]!]);
    ranks[order[i]!] = ranks[order[i - 1]!]! + Number(isNew);
  }
  return ranks;
}
