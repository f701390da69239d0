'use client';

import { useMemo } from 'react';
import type { Window } from '@/core';
import type { BesideFigures, TwoWindows } from '@/contracts/common';
import { formatConversions, formatCount, formatDays, signed } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { useAccount } from './account-context';
import { useDays } from './data/days';
import { besideOf, windowOf } from './days-of';
import { useBeside } from './days-picker';
import type { useMoney, useUnits } from './money';

/** The days that stand beside those that are looked at; null where none do. */
export function useBesideDays(): Window | null {
  const { summary } = useAccount();
  const [days] = useDays();
  const [beside] = useBeside();
  return useMemo(() => {
    const window = windowOf(days, summary);
    return window && besideOf(beside, window);
  }, [days, beside, summary]);
}

/**
 * Columns that hold other days beside these: the cost then, and the differences.
 * @param days the other days
 * @param of the figures of a row in both; null where nothing is known of it
 * @param explains what the figures are of
 */
export function besideColumns<Row, C = undefined>(
  days: Window,
  of: (row: Row) => TwoWindows | null | undefined,
  explains: string,
  money: ReturnType<typeof useMoney>,
  units: ReturnType<typeof useUnits>,
): Column<Row, C>[] {
  const said = formatDays(days);
  const difference = (
    id: string,
    name: string,
    figure: keyof BesideFigures,
    write: (value: number) => string,
    toValue: (value: number) => number | null = (value) => value,
  ): Column<Row, C> => {
    const less = (row: Row) => {
      const two = of(row);
      return two ? two.now[figure] - two.then[figure] : null;
    };
    return {
      ...{ id, name, fullName: `${name}, beside ${said}`, px: 58, explains },
      value: (row) => {
        const by = less(row);
        return by === null ? null : toValue(by);
      },
      cell: (row) => {
        const by = less(row);
        return by === null ? null : signed(by, write);
      },
    };
  };
  return [
    {
      ...{ id: 'costThen', name: 'cost then', fullName: `cost, ${said}`, px: 58, explains },
      value: (row) => units(of(row)?.then.costMicros ?? null),
      cell: (row) => {
        const two = of(row);
        return two && <span className="text-soft">{money(two.then.costMicros)}</span>;
      },
    },
    difference('costDifference', '± cost', 'costMicros', money, units),
    { ...difference('clicksDifference', '± clicks', 'clicks', formatCount), isOff: true },
    { ...difference('conversionsDifference', '± conv.', 'conversions', formatConversions), isOff: true },
  ];
}

/** The same, with what was spent in these days before it, and each of them sorted by its head. */
export function besideColumnsWithNow<Row>(
  ...[days, of, explains, money, units]: Parameters<typeof besideColumns<Row>>
): Column<Row>[] {
  const now: Column<Row> = {
    ...{ id: 'costNow', name: 'cost now', fullName: 'cost in these days', px: 58, explains },
    value: (row) => units(of(row)?.now.costMicros ?? null),
    cell: (row) => {
      const two = of(row);
      return two && money(two.now.costMicros);
    },
  };
  return [now, ...besideColumns(days, of, explains, money, units)].map((column) => ({
    ...column,
    isSortable: true,
  }));
}
