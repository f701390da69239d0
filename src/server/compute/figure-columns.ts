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

const known = (value: number) => (Number.isNaN(value) ? null : value);
