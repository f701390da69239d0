import { shiftDay, type Figures } from '@/core';
import { TERM_KINDS } from '../repositories/columns/term-columns';
import type { Term, TermKind } from '../repositories/facts';
import { COLUMN, FIGURE_COUNT, figureAt, figuresIn } from './figure-columns';
import { textAt } from './shared-columns';

/**
 * What was served in a window, as columns in memory that threads share. Row r is (term, ad group, keyword); rows stand
 * by term.
 */
export type RowColumns = {
  count: number;
  /** index of the term among the terms of the window */
  termOf: Uint32Array;
  adGroupId: Uint32Array;
  keywordId: Uint32Array;
  /** days since 1970 */
  lastDay: Uint32Array;
  /** of each row, as `figureAt` finds them */
  figures: Float64Array;
};

/** The terms of a window: term t says keys[keyStarts[t] .. keyStarts[t + 1]) in UTF-8, and was first seen as raws. */
export type TermColumns = {
  count: number;
  ids: Uint32Array;
  kinds: Uint8Array;
  keyStarts: Uint32Array;
  keys: Uint8Array;
  rawStarts: Uint32Array;
  raws: Uint8Array;
};

const EPOCH = '1970-01-01';

export function termAt(terms: TermColumns, t: number): Term {
  return { id: terms.ids[t]!, key: keyAt(terms, t), raw: rawAt(terms, t), kind: kindAt(terms, t) };
}

export const kindAt = ({ kinds }: Pick<TermColumns, 'kinds'>, t: number): TermKind => TERM_KINDS[kinds[t]!]!;
export const keyAt = ({ keys, keyStarts }: Pick<TermColumns, 'keys' | 'keyStarts'>, t: number) =>
  textAt(keys, keyStarts, t);
const rawAt = ({ raws, rawStarts }: TermColumns, t: number) => textAt(raws, rawStarts, t);

export const lastDayAt = ({ lastDay }: RowColumns, r: number): string => shiftDay(EPOCH, lastDay[r]!);
export const costAt = ({ figures }: RowColumns, r: number): number =>
  figureAt(figures, r, COLUMN.costMicros) || 0;
export const conversionsAt = ({ figures }: RowColumns, r: number): number =>
  figureAt(figures, r, COLUMN.conversions) || 0;

export function figuresAt({ figures }: RowColumns, r: number): Figures {
  return figuresIn(figures, r);
}

/** Adds the figures of a row into `sum` by the rule of `addFigures`. */
export function addRow(sum: Figures, { figures }: RowColumns, r: number): void {
  const at = FIGURE_COUNT * r;
  const impressions = figures[at + COLUMN.impressions]!;
  const clicks = figures[at + COLUMN.clicks]!;
  const costMicros = figures[at + COLUMN.costMicros]!;
  const conversions = figures[at + COLUMN.conversions]!;
  const valueMicros = figures[at + COLUMN.valueMicros]!;
  if (!Number.isNaN(impressions)) sum.impressions = (sum.impressions ?? 0) + impressions;
  if (!Number.isNaN(clicks)) sum.clicks = (sum.clicks ?? 0) + clicks;
  if (!Number.isNaN(costMicros)) sum.costMicros = (sum.costMicros ?? 0) + costMicros;
  if (!Number.isNaN(conversions)) sum.conversions = (sum.conversions ?? 0) + conversions;
  if (!Number.isNaN(valueMicros)) sum.valueMicros = (sum.valueMicros ?? 0) + valueMicros;
}
