import { shiftDay } from '@/core';
import { COLUMN, figureAt } from '../figure-columns';
import { column } from '../shared-columns';
import type { SnapshotData } from '../snapshot';
import { kindAt } from '../window-columns';
import type { History } from './history';

/** Whether a window holds all days that are kept, less the lag, and no other. */
export function isWhole(
  { window, dataDays }: Pick<SnapshotData, 'window' | 'dataDays'>,
  lagDays: number,
): boolean {
  return dataDays === null || (window.from <= dataDays.from && window.to === shiftDay(dataDays.to, -lagDays));
}

/** The history of an account whose window holds all its days, without reading them again. */
export function historyOfWindow({ rows, terms, window, dataDays }: SnapshotData): History {
  const columns = {
    ...{ termOf: column(), adGroupId: column() },
    ...{ clicks: column(), conversions: column(), costMicros: column() },
  };
  const add = (a: number, b: number) => (Number.isNaN(a) ? b : Number.isNaN(b) ? a : a + b);
  for (let r = 0; r < rows.count;) {
    const [t, adGroup] = [rows.termOf[r]!, rows.adGroupId[r]!];
    let [clicks, conversions, cost] = [NaN, NaN, NaN];
    // Rows stand by term, then by ad group, one for each keyword.
    for (; r < rows.count && rows.termOf[r] === t && rows.adGroupId[r] === adGroup; r++) {
      clicks = add(clicks, figureAt(rows.figures, r, COLUMN.clicks));
      conversions = add(conversions, figureAt(rows.figures, r, COLUMN.conversions));
      cost = add(cost, figureAt(rows.figures, r, COLUMN.costMicros));
    }
    if (kindAt(terms, t) === 'unreported') continue;
    columns.termOf.push(t);
    columns.adGroupId.push(adGroup);
    columns.clicks.push(clicks);
    columns.conversions.push(conversions);
    columns.costMicros.push(cost);
  }
  const { count, ids, kinds, keyStarts, keys } = terms;
  return {
    days: dataDays && { from: dataDays.from, to: window.to },
    terms: { count, ids, kinds, keyStarts, keys },
    rows: {
      count: columns.termOf.length(),
      termOf: columns.termOf.into(Uint32Array),
      adGroupId: columns.adGroupId.into(Uint32Array),
      clicks: columns.clicks.into(Float64Array),
      conversions: columns.conversions.into(Float64Array),
      costMicros: columns.costMicros.into(Float64Array),
    },
  };
}
