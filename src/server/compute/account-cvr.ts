import { noFigures, ratios } from '@/core';
import { derivedFrom } from './derived';
import type { Snapshot } from './snapshot';
import { addRow } from './window-columns';

/** Conversions a click, of a whole account in its window; null without a click. */
export const accountCvr = derivedFrom(({ rows }: Snapshot): number | null => {
  const all = noFigures();
  for (let r = 0; r < rows.count; r++) addRow(all, rows, r);
  return all.clicks === null || all.clicks === 0 ? null : (ratios(all).cvr ?? 0);
});
