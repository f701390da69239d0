import { grown } from '../../columns';

/** One value an n-gram, added once for each term that holds it: what decides which n-grams are worth their sums. */
export type NgramValues = {
  add(ngram: number, term: number, value: number): void;
  has(ngram: number): boolean;
  /** 0 for an n-gram that was never seen */
  valueOf(ngram: number): number;
};

const [VALUE, LAST, RECORD] = [0, 1, 2];

/** @param n-grams that are expected */
export function createNgramValues(ngrams: number): NgramValues {
  /** N-gram r owns records[2r] (its value) and records[2r + 1] (the term added last + 1, 0 where none was). */
  let records = new Float64Array(RECORD * Math.max(ngrams, 1 << 12));
  return {
    add(ngram, term, value) {
      const at = RECORD * ngram;
      if (at >= records.length) records = grown(records, Math.max(2 * records.length, at + RECORD));
      if (records[at + LAST] === term + 1) return;
      records[at + LAST] = term + 1;
      records[at + VALUE]! += value;
    },
    has: (ngram) => RECORD * ngram < records.length && records[RECORD * ngram + LAST] !== 0,
    valueOf: (ngram) => (RECORD * ngram < records.length ? records[RECORD * ngram + VALUE]! : 0),
  };
}
