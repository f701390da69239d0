'use client';

import { useMemo } from 'react';
import { ratios, sumFigures, type Figures } from '@/core';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatConversions, formatCount, formatShare } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { useCost } from './use-cost';

/** One of the things of which one is to be chosen, the suggested one first. */
type Choice = Pick<Figures, 'clicks' | 'costMicros' | 'conversions'> & { campaign: string; adGroup: string };

/**
 * Columns of things of which one is to be chosen: where the suggested one stands, how sure that is, and what all of them
 * brought.
 * @param choicesOf the choices of a row
 * @param suggested what the column of the suggested one is called
 */
export function useChoiceColumns<Row extends { sure: number; isClear?: boolean }>(
  choicesOf: (row: Row) => readonly Choice[],
  suggested: string,
) {
  const money = useMoney();
  const units = useUnits();
  const cost = useCost();
  return useMemo(() => {
    const sums = (row: Row) => sumFigures(choicesOf(row));
    const whereOf = (row: Row) => `${choicesOf(row)[0]!.campaign} · ${choicesOf(row)[0]!.adGroup}`;
    const columns = {
      suggested: {
        ...{ id: 'suggested', name: suggested, px: 96, share: 1, isText: true },
        value: whereOf,
        cell: (row) => <span className="text-soft">{whereOf(row)}</span>,
      },
      sure: {
        ...{ id: 'sure', name: 'sure', px: 54, isSortable: true },
        explains:
          'How likely it is that its conversions cost less than those of each other one (docs/rules.md 5.5).',
        value: ({ sure }) => sure,
        cell: ({ sure, isClear = false }) => (
          <span className={isClear ? 'font-semibold text-moss' : 'text-soft'}>
            {sure > 0 ? formatShare(sure) : '–'}
          </span>
        ),
      },
      clicks: {
        ...{ id: 'clicks', name: 'clicks', px: 52, isSortable: true },
        value: (row) => sums(row).clicks,
        cell: (row) => formatCount(sums(row).clicks ?? 0),
      },
      conversions: {
        ...{ id: 'conversions', name: 'conv.', fullName: 'conversions', px: 48, isSortable: true },
        value: (row) => sums(row).conversions,
        cell: (row) => formatConversions(sums(row).conversions ?? 0),
      },
      cost: {
        ...{ id: 'cost', name: 'cost', px: 72, isSortable: true },
        value: (row) => units(sums(row).costMicros),
        cell: (row) => money(sums(row).costMicros ?? 0),
      },
      cpa: {
        ...{ id: 'cpa', name: 'cost a conv.', fullName: 'cost a conversion', px: 88, isOff: true },
        value: (row) => units(ratios(sums(row)).cpaMicros),
        cell: (row) => cost.ofConversion(sums(row)),
      },
    } satisfies Record<string, Column<Row>>;
    return columns;
  }, [choicesOf, suggested, money, units, cost]);
}
