'use client';

import { useMemo } from 'react';
import { counted, ratios, sumFigures } from '@/core';
import type { DuplicateLine } from '@/contracts/duplicates';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatConversions, formatCount, formatShare } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import type { Column } from '@/ui/table/column';

const sums = ({ keywords }: DuplicateLine) => sumFigures(keywords);

/** What stands twice, what all of it brought, and who should stay. */
export function useDuplicateColumns(): readonly Column<DuplicateLine>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo((): Column<DuplicateLine>[] => {
    return [
      {
        ...{ id: 'keyword', name: 'keyword', px: 140, share: 1, isText: true, isSortable: true },
        value: ({ keywords }) => keywords[0]!.text,
        cell: ({ keywords }) => (
          <>
            <b>{keywords[0]!.text}</b>{' '}
            {[...new Set(keywords.map(({ match }) => match))].map((match) => (
              <MatchChip key={match} match={match} />
            ))}
          </>
        ),
      },
      {
        ...{ id: 'times', name: 'stands', px: 54, isSortable: true },
        value: ({ count }) => count,
        cell: ({ count }) => `${formatCount(count)} ×`,
      },
      {
        ...{ id: 'stays', name: 'suggested to stay', px: 124, share: 1, isText: true },
        value: ({ keywords: [one] }) => `${one!.campaign} · ${one!.adGroup}`,
        cell: ({ keywords: [one] }) => (
          <span className="text-soft">{`${one!.campaign} · ${one!.adGroup}`}</span>
        ),
      },
      {
        ...{ id: 'sure', name: 'sure', px: 54, isSortable: true },
        explains:
          'How likely it is that its conversions cost less than those of each other one (docs/rules.md 5.5).',
        value: ({ sure }) => sure,
        cell: ({ sure, isClear }) => (
          <span className={isClear ? 'font-semibold text-moss' : 'text-soft'}>
            {sure > 0 ? formatShare(sure) : '–'}
          </span>
        ),
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
        ...{ id: 'cost', name: 'cost', px: 72, isSortable: true },
        value: (line) => units(sums(line).costMicros),
        cell: (line) => money(sums(line).costMicros ?? 0),
      },
      {
        ...{ id: 'cpa', name: 'cost a conv.', fullName: 'cost a conversion', px: 88, isOff: true },
        value: (line) => units(ratios(sums(line)).cpaMicros),
        cell: (line) => {
          const { cpaMicros } = ratios(sums(line));
          return cpaMicros === null ? '–' : money(cpaMicros);
        },
      },
      {
        ...{ id: 'places', name: 'stands in', px: 200, share: 2, isText: true, isOff: true },
        value: ({ keywords }) =>
          keywords.map(({ campaign, adGroup }) => `${campaign} · ${adGroup}`).join(', '),
        cell: ({ keywords }) => counted(new Set(keywords.map(({ campaign }) => campaign)).size, 'campaign'),
      },
    ];
  }, [money, units]);
}
