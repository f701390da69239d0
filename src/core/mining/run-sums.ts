import { grown } from '../columns';
import { FIGURE_NAMES, noFigures, type Figures } from '../figures';

/** Figures of one term, ready to be added many times. Unknown is NaN. */
export type TermFigures = { term: number; values: Float64Array; withoutReturnMicros: number };

/** Sums of figures by run; a run that repeats in a term is added once. */
export type RunSums = {
  add(run: number, figures: TermFigures): void;
  /** How many terms were added to a run; 0 for one that was never seen. */
  termsOf(run: number): number;
  costOf(run: number): number;
  withoutReturnOf(run: number): number;
  figuresOf(run: number): Figures;
};

/** What a record holds, in this order; one record fills one line of the processor's cache. */
const [TERMS, LAST, WITHOUT, FIRST_FIGURE, RECORD] = [0, 1, 2, 3, 8];
const COST = FIRST_FIGURE + FIGURE_NAMES.indexOf('costMicros');

export function createRunSums(): RunSums {
  /** Run r owns records[8r .. 8r + 8): terms, the term added last + 1, cost without return, five figures. */
  let records = new Float64Array(RECORD << 10);
  const known = (run: number) => RECORD * run < records.length;
  return {
    add(run, { term, values, withoutReturnMicros }) {
      const at = RECORD * run;
      if (at >= records.length) records = grown(records, Math.max(2 * records.length, at + RECORD));
      if (records[at + LAST] === term + 1) return;
      records[at + LAST] = term + 1;
      const isFirst = records[at + TERMS]!++ === 0;
      records[at + WITHOUT]! += withoutReturnMicros;
      for (let f = 0; f < FIGURE_NAMES.length; f++) {
        const value = values[f]!;
        const sum = isFirst ? NaN : records[at + FIRST_FIGURE + f]!;
        records[at + FIRST_FIGURE + f] = sum !== sum ? value : value !== value ? sum : sum + value; // NaN is unlike itself
      }
    },
    termsOf: (run) => (known(run) ? records[RECORD * run + TERMS]! : 0),
    costOf: (run) => (known(run) ? records[RECORD * run + COST]! || 0 : 0),
    withoutReturnOf: (run) => (known(run) ? records[RECORD * run + WITHOUT]! : 0),
    figuresOf(run) {
      const figures = noFigures();
      FIGURE_NAMES.forEach((name, f) => {
        const value = records[RECORD * run + FIRST_FIGURE + f]!;
        if (!Number.isNaN(value)) figures[name] = value;
      });
      return figures;
    },
  };
}
