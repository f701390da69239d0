import type { Figures } from '@/core';
import type { Snapshot, WindowFacts } from './snapshot';
import { kindAt } from './window-columns';
import { derivedFrom } from './derived';
import { addFiguresInto, FIGURE_COUNT, figureAt, figuresIn, COLUMN } from './figure-columns';

/** Sums over all rows of a window, term by term. */
export type TermSums = {
  /** of each term, as `figureAt` finds them */
  figures: Float64Array;
  /** cost of the window, and how much of it the platform reports without a term; micro-units */
  costMicros: number;
  unreportedMicros: number;
};

/** The sums of a window; made when they are first asked for. */
export const termSums = ({ facts }: Pick<Snapshot, 'facts'>): TermSums => sumsOf(facts);
const sumsOf = derivedFrom(sumAll);

function sumAll({ rows, terms }: WindowFacts): TermSums {
  const figures = new Float64Array(FIGURE_COUNT * terms.count).fill(NaN);
  for (let r = 0; r < rows.count; r++) addFiguresInto(figures, rows.termOf[r]!, rows.figures, r);
  let [costMicros, unreportedMicros] = [0, 0];
  for (let t = 0; t < terms.count; t++) {
    const cost = figureAt(figures, t, COLUMN.costMicros) || 0;
    costMicros += cost;
    if (kindAt(terms, t) === 'unreported') unreportedMicros += cost;
  }
  return { figures, costMicros, unreportedMicros };
}

/** The figures of a term as an object. */
export function figuresOfTerm({ figures }: Pick<TermSums, 'figures'>, t: number): Figures {
  return figuresIn(figures, t);
}
