import { grown } from '../../columns';

/** One value a run, added once for each term that holds it: what decides which runs are worth their sums. */
export type RunValues = {
  add(run: number, term: number, value: number): void;
  has(run: number): boolean;
  /** 0 for a run that was never seen */
  valueOf(run: number): number;
};

const [VALUE, LAST, RECORD] = [0, 1, 2];

/** @param runs that are expected */
export function createRunValues(runs: number): RunValues {
  /** Run r owns records[2r] (its value) and records[2r + 1] (the term added last + 1, 0 where none was). */
  let records = new Float64Array(RECORD * Math.max(runs, 1 << 12));
  return {
    add(run, term, value) {
      const at = RECORD * run;
      if (at >= records.length) records = grown(records, Math.max(2 * records.length, at + RECORD));
      if (records[at + LAST] === term + 1) return;
      records[at + LAST] = term + 1;
      records[at + VALUE]! += value;
    },
    has: (run) => RECORD * run < records.length && records[RECORD * run + LAST] !== 0,
    valueOf: (run) => (RECORD * run < records.length ? records[RECORD * run + VALUE]! : 0),
  };
}
