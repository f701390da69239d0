import { FIGURE_NAMES, noFigures, spendWithoutReturn, type Figures } from '../../figures';

/** Sums of the terms of each n-gram, by slots from 0; an n-gram that repeats in a term is added once. */
export type NgramSums = {
  /** Takes a term in hand. */
  turnTo(term: { term: number } & Partial<Figures>): void;
  /** Adds the term in hand. */
  add(slot: number): void;
  of(slot: number): { terms: number; withoutReturnMicros: number } & Figures;
};

/** What a record holds, in this order; one record fills one line of the processor's cache. */
const [TERMS, LAST, WITHOUT, FIRST_FIGURE, RECORD] = [0, 1, 2, 3, 8];

/** @param slots how many there are */
export function createNgramSums(slots: number): NgramSums {
  /** Slot s owns records[8s .. 8s + 8): terms, the term added last + 1, cost without return, five figures. */
  const records = new Float64Array(RECORD * slots);
  let term = 0;
  let withoutReturn = 0;
  const values = new Float64Array(FIGURE_NAMES.length); // unknown is NaN
  return {
    turnTo(next) {
      term = next.term;
      withoutReturn = spendWithoutReturn(next);
      values[0] = next.impressions ?? NaN;
      values[1] = next.clicks ?? NaN;
      values[2] = next.costMicros ?? NaN;
      values[3] = next.conversions ?? NaN;
      values[4] = next.valueMicros ?? NaN;
    },
    add(slot) {
      const at = RECORD * slot;
      if (records[at + LAST] === term + 1) return;
      records[at + LAST] = term + 1;
      const isFirst = records[at + TERMS]!++ === 0;
      records[at + WITHOUT]! += withoutReturn;
      for (let f = 0; f < FIGURE_NAMES.length; f++) {
        const value = values[f]!;
        const sum = isFirst ? NaN : records[at + FIRST_FIGURE + f]!;
        records[at + FIRST_FIGURE + f] = sum !== sum ? value : value !== value ? sum : sum + value; // NaN is unlike itself
      }
    },
    of(slot) {
      const at = RECORD * slot;
      const figures = noFigures();
      FIGURE_NAMES.forEach((name, f) => {
        const value = records[at + FIRST_FIGURE + f]!;
        if (!Number.isNaN(value)) figures[name] = value;
      });
      return { terms: records[at + TERMS]!, withoutReturnMicros: records[at + WITHOUT]!, ...figures };
    },
  };
}
