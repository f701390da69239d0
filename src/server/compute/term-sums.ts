import type { Figures } from '@/core';
import type { Snapshot } from './snapshot';
import { kindAt } from './window-columns';

/** Figures of a term, in the order of FIGURE_NAMES. */
const FIGURES = 5;

/** What is summed over all rows of a window once, term by term. */
export type TermSums = {
  /** figure f of term t is figures[5t + f], NaN where it is unknown */
  figures: Float64Array;
  /** cost of the window, and how much of it the platform reports without a term; micro-units */
  costMicros: number;
  unreportedMicros: number;
};

const made = new WeakMap<Snapshot, TermSums>();

/** The sums of a snapshot; made when they are first asked for. */
export function termSums(snapshot: Snapshot): TermSums {
  let sums = made.get(snapshot);
  if (!sums) made.set(snapshot, (sums = sumAll(snapshot)));
  return sums;
}

function sumAll({ rows, terms }: Snapshot): TermSums {
  const figures = new Float64Array(FIGURES * terms.count).fill(NaN);
  for (let r = 0; r < rows.count; r++) {
    const to = FIGURES * rows.termOf[r]!;
    const from = FIGURES * r;
    for (let f = 0; f < FIGURES; f++) {
      const value = rows.figures[from + f]!;
      if (Number.isNaN(value)) continue;
      const sum = figures[to + f]!;
      figures[to + f] = Number.isNaN(sum) ? value : sum + value;
    }
  }
  let [costMicros, unreportedMicros] = [0, 0];
  for (let t = 0; t < terms.count; t++) {
    const cost = figures[FIGURES * t + 2]! || 0;
    costMicros += cost;
    if (kindAt(terms, t) === 'unreported') unreportedMicros += cost;
  }
  return { figures, costMicros, unreportedMicros };
}

const known = (value: number) => (Number.isNaN(value) ? null : value);

/** The figures of a term as an object. */
export function figuresOfTerm({ figures }: Pick<TermSums, 'figures'>, t: number): Figures {
  const at = FIGURES * t;
  return {
    impressions: known(figures[at]!),
    clicks: known(figures[at + 1]!),
    costMicros: known(figures[at + 2]!),
    conversions: known(figures[at + 3]!),
    valueMicros: known(figures[at + 4]!),
  };
}
