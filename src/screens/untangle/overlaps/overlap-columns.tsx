'use client';

import { useMemo } from 'react';
import { sumFigures } from '@/core';
import type { OverlapLine } from '@/contracts/overlaps';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatConversions, formatCount, formatShare } from '@/ui/format';
import type { Column } from '@/ui/table/column';

const sums = ({ servers }: OverlapLine) => sumFigures(servers);
const elsewhere = ({ servers }: OverlapLine) => sumFigures(servers.slice(1)).costMicros ?? 0;

/** A term that several ad groups serve, who should have it, and what it cost in the other places. */
export function useOverlapColumns(): readonly Column<OverlapLine>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo(
    (): Column<OverlapLine>[] => [
      {
        ...{ id: 'term', name: 'search term', px: 150, share: 1, isText: true, isSortable: true },
        value: ({ term }) => term,
        cell: ({ term }) => <b>{term}</b>,
      },
      {
        ...{ id: 'servers', name: 'served by', px: 64, isSortable: true },
        value: ({ servers }) => servers.length,
        cell: ({ servers }) => formatCount(servers.length),
      },
      {
        ...{ id: 'keeps', name: 'suggested to keep it', px: 130, share: 1, isText: true },
        value: ({ servers: [one] }) => `${one!.campaign} · ${one!.adGroup}`,
        cell: ({ servers: [one] }) => (
          <span className="text-soft">{`${one!.campaign} · ${one!.adGroup}`}</span>
        ),
      },
      {
        ...{ id: 'sure', name: 'sure', px: 54, isSortable: true },
        explains:
          'How likely it is that its conversions cost less there than in each other place (docs/rules.md 5.5).',
        value: ({ sure }) => sure,
        cell: ({ sure }) => (sure > 0 ? formatShare(sure) : '–'),
      },
      {
        ...{ id: 'clicks', name: 'clicks', px: 52, isSortable: true },
        value: (line) => sums(line).clicks,
        cell: (line) => formatCount(sums(line).clicks ?? 0),
      },
      {
        ...{ id: 'conversions', name: 'conv.', fullName: 'conversions', px: 48, isSortable: true },
        value: (line) => sums(line).conversions,
        cell: (line) => formatConversions(sums(line).conversions ?? 0),
      },
      {
        ...{ id: 'cost', name: 'cost', px: 72, isSortable: true, isOff: true },
        value: (line) => units(sums(line).costMicros),
        cell: (line) => money(sums(line).costMicros ?? 0),
      },
      {
        ...{ id: 'elsewhere', name: 'cost elsewhere', px: 116, isSortable: true },
        explains: 'What it cost in all places but the one that should have it.',
        value: (line) => units(elsewhere(line)),
        cell: (line) => money(elsewhere(line)),
      },
    ],
    [money, units],
  );
}
