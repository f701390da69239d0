'use client';

import { useMemo } from 'react';
import type { Finding } from '@/contracts/findings';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatConversions, formatCount, formatDay } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { termAndRule } from '../term-columns';

/** A finding: the term, the rule that found it, and what the rule saw. */
export function useFindingColumns(): readonly Column<Finding>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo(
    () => [
      ...termAndRule<Finding>('what it is about', false),
      {
        ...{ id: 'clicks', name: 'clicks', px: 56, isSortable: true },
        value: ({ clicks }) => clicks,
        cell: ({ clicks }) => formatCount(clicks),
      },
      {
        ...{ id: 'cost', name: 'cost', px: 72, isSortable: true },
        value: ({ costMicros }) => units(costMicros),
        cell: ({ costMicros }) => money(costMicros),
      },
      {
        ...{ id: 'conversions', name: 'conv.', fullName: 'conversions', px: 56, isSortable: true },
        value: ({ conversions }) => conversions,
        cell: ({ conversions }) => formatConversions(conversions),
      },
      {
        ...{
          id: 'place',
          name: 'would be',
          fullName: 'where it would be stopped, or what would become of it',
          px: 120,
          share: 1,
          isText: true,
          isSortable: true,
          yields: true,
        },
        value: ({ place }) => place,
        cell: ({ place, against }) =>
          against.length > 0 ? (
            <span className="text-rust">two rules differ: {place}</span>
          ) : (
            <span className="text-soft">{place}</span>
          ),
      },
      {
        ...{ id: 'found', name: 'found', fullName: 'day on which it was found', px: 64, isSortable: true },
        value: ({ foundOn }) => foundOn,
        cell: ({ foundOn }) => formatDay(foundOn),
      },
    ],
    [money, units],
  );
}
