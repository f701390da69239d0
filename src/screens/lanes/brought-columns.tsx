'use client';

import { useMemo } from 'react';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatConversions, formatCount } from '@/ui/format';
import type { Column } from '@/ui/table/column';

type Brought = { clicks: number; costMicros: number; conversions: number | null };

/** What queries brought: clicks, cost and conversions. */
export function useBroughtColumns<Row extends Brought>(): readonly Column<Row>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo(
    () => [
      {
        ...{ id: 'clicks', name: 'clicks', px: 56, isSortable: true, isDownFirst: true },
        value: ({ clicks }) => clicks,
        cell: ({ clicks }) => formatCount(clicks),
      },
      {
        ...{ id: 'cost', name: 'cost', px: 70, isSortable: true, isDownFirst: true },
        value: ({ costMicros }) => units(costMicros),
        cell: ({ costMicros }) => money(costMicros),
      },
      {
        ...{ id: 'conversions', name: 'conv.', fullName: 'conversions', px: 54, isSortable: true },
        ...{ isDownFirst: true, yields: true },
        value: ({ conversions }) => conversions,
        cell: ({ conversions }) => formatConversions(conversions),
      },
    ],
    [money, units],
  );
}
