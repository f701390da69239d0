'use client';

import { useMemo } from 'react';
import { ratios, type Window } from '@/core';
import type { Sort, TermLine } from '@/contracts/sift';
import { useAccount } from '@/screens/frame/account-context';
import { besideColumns } from '@/screens/frame/beside-columns';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatCount, formatDay, formatShare } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import type { SiftUrl } from '../sift-url';
import { Meter } from './meter';
import { ConversionsCell, CostCell, ServedByCell, TermCell, type TermLook } from './term-cells';

export type TermColumn = Column<TermLine, TermLook>;

/** The head that a sorting stands at. Spend without return is one way to look at the cost. */
export const columnOfSort = (sort: Sort): string => (sort === 'without' ? 'cost' : sort);

/** What choosing a head sorts by, in turn. The cost is first sorted by what brought no return. */
export function nextSort(
  column: string,
  { sort, direction }: Pick<SiftUrl, 'sort' | 'direction'>,
): [Sort, 'asc' | 'desc'] {
  const name = column as Sort;
  if (name === 'cost' && sort === 'without') return ['cost', 'desc'];
  if (name === 'cost' && sort === 'cost') return direction === 'desc' ? ['cost', 'asc'] : ['without', 'desc'];
  if (name === 'cost') return ['without', 'desc'];
  if (sort !== name) return [name, name === 'term' ? 'asc' : 'desc'];
  return [name, direction === 'desc' ? 'asc' : 'desc'];
}

/** The columns of the search terms. The term has its room first, and what served it takes what is left. */
export function useTermColumns(sort: Sort, beside: Window | null): readonly TermColumn[] {
  const { steersBy } = useAccount().summary;
  const money = useMoney();
  const units = useUnits();
  return useMemo(() => {
    const figure = { isText: false, isOff: true };
    const columns: TermColumn[] = [
      {
        ...{ id: 'term', name: 'search term', px: 244, share: 3, most: 460, isText: true, isSortable: true },
        value: ({ raw }) => raw,
        cell: (line, look, state) => <TermCell line={line} look={look} state={state} />,
      },
      {
        ...{ id: 'served', name: 'served by', px: 56, share: 2, most: 380, yields: true, isText: true },
        value: ({ servedBy: { keyword, match } }) => (keyword === null ? match : `${keyword} (${match})`),
        cell: (line, _, { isLight }) => <ServedByCell line={line} isLight={isLight} />,
      },
      {
        ...{ id: 'clicks', name: 'clicks', px: 36, isSortable: true },
        value: ({ clicks }) => clicks,
        cell: ({ clicks }) => formatCount(clicks),
      },
      {
        ...{ id: 'cost', name: sort === 'without' ? 'no return' : 'cost', fullName: 'cost', px: 60 },
        ...{ isSortable: true, explains: NO_RETURN },
        value: ({ costMicros }) => units(costMicros),
        cell: (line) => <CostCell line={line} money={money} />,
      },
      {
        ...{ id: 'conversions', name: 'conv.', fullName: 'conversions', px: 32, isSortable: true },
        value: ({ conversions }) => conversions,
        cell: (line) => <ConversionsCell line={line} />,
      },
      {
        ...{ id: 'evidence', name: 'sure', fullName: 'sure that it misses the target', px: 40 },
        ...{ isSortable: true, explains: SURE },
        value: ({ evidence }) => evidence?.misses ?? null,
        cell: ({ evidence, clicks, conversions }, _, { isLight }) =>
          isLight ? '' : <Meter evidence={evidence} clicks={clicks} conversions={conversions} />,
      },
      {
        ...{ id: 'target', name: steersBy === 'CPA' ? 'CPA' : 'ACoS', px: 42, isSortable: true },
        value: (line) => (steersBy === 'CPA' ? units(ratios(line).cpaMicros) : ratios(line).acos),
        cell: (line) => (steersBy === 'CPA' ? money(ratios(line).cpaMicros) : formatShare(ratios(line).acos)),
      },
      {
        ...{ id: 'impressions', name: 'impr.', fullName: 'impressions', px: 56, isSortable: true, ...figure },
        value: ({ impressions }) => impressions,
        cell: ({ impressions }) => formatCount(impressions),
      },
      {
        ...{ id: 'cpc', name: 'CPC', px: 44, ...figure },
        value: (line) => units(ratios(line).cpcMicros),
        cell: (line) => money(ratios(line).cpcMicros),
      },
      {
        ...{ id: 'value', name: 'value', px: 62, ...figure },
        value: ({ valueMicros }) => units(valueMicros),
        cell: ({ valueMicros }) => money(valueMicros),
      },
      {
        ...{ id: 'campaign', name: 'campaign', px: 96, share: 1, isText: true, isOff: true },
        value: ({ campaign }) => campaign,
        cell: ({ campaign }) => <span className="text-soft">{campaign}</span>,
      },
      {
        ...{ id: 'adGroup', name: 'ad group', px: 96, share: 1, isText: true, isOff: true },
        value: ({ adGroup }) => adGroup,
        cell: ({ adGroup }) => <span className="text-soft">{adGroup}</span>,
      },
      {
        ...{ id: 'lastDay', name: 'last day', px: 52, ...figure },
        value: ({ lastDay }) => lastDay,
        cell: ({ lastDay }) => formatDay(lastDay),
      },
    ];
    if (!beside) return columns;
    const after = columns.findIndex(({ id }) => id === 'cost') + 1;
    return columns.toSpliced(
      after,
      0,
      ...besideColumns<TermLine, TermLook>(beside, of, BESIDE_EXPLAINED, money, units),
    );
  }, [sort, steersBy, money, units, beside]);
}

const of = (line: TermLine) => line.beside;
const BESIDE_EXPLAINED =
  'All of the term in these days, less all of it in the days beside: more is +, less is −.';
const SURE =
  'How sure the figures of all days are that the term misses the target. The tick stands at 95 %: from there it is sure enough to stop it. In hand says what would settle it.';
const NO_RETURN =
  'No return is what was spent on terms without a conversion. Sorted by it, a term that converted comes after all that did not. Pressed again, the table is sorted by the whole cost.';
