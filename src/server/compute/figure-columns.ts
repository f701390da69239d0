import { FIGURE_NAMES, type Figures } from '@/core';

/**
 * Figures of many things in one array. The figures of one thing stand together, in the order of the core; NaN where a
 * figure is unknown.
 */
export const FIGURE_COUNT = FIGURE_NAMES.length;

/** The column of each figure. */
export const COLUMN = {
  impressions: 0,
  clicks: 1,
  costMicros: 2,
  conversions: 3,
  valueMicros: 4,
} as const satisfies Record<keyof Figures, number>;
type Column = (typeof COLUMN)[keyof Figures];

/** One figure of the nth thing; NaN where it is unknown. */
export function figureAt(figures: Float64Array, n: number, column: Column): number {
  return figures[FIGURE_COUNT * n + column]!;
}

/** All figures of the nth thing. */
export function figuresIn(figures: Float64Array, n: number): Figures {
  const at = FIGURE_COUNT * n;
  return {
    impressions: known(figures[at + COLUMN.impressions]!),
    clicks: known(figures[at + COLUMN.clicks]!),
    costMicros: known(figures[at + COLUMN.costMicros]!),
    conversions: known(figures[at + COLUMN.conversions]!),
    valueMicros: known(figures[at + COLUMN.valueMicros]!),
  };
}

/** Adds a figure into a sum. Unknown and unknown stays unknown; unknown and a number is the number. */
export function addKnown(sums: Float64Array, n: number, value: number): void {
  const sum = sums[n]!;
  if (!Number.isNaN(value)) sums[n] = Number.isNaN(sum) ? value : sum + value;
}

/** Adds all figures of one thing into those of another. */
export function addFiguresInto(sums: Float64Array, n: number, figures: Float64Array, m: number): void {
  for (let f = 0; f < FIGURE_COUNT; f++) addKnown(sums, FIGURE_COUNT * n + f, figures[FIGURE_COUNT * m + f]!);
}

const known = (value: number) => (Number.isNaN(value) ? null : value);
