'use client';

import { useMemo } from 'react';
import { noFigures, ratios } from '@/core';
import type { PromotionGroup, PromotionLine } from '@/contracts/promotion';
import { useAccount } from '@/screens/frame/account-context';
import { useMoney, useUnits } from '@/screens/frame/money';
import { SureBar } from '@/screens/sift/table/meter';
import { formatConversions, formatCount, formatShare } from '@/ui/format';
import type { Column } from '@/ui/table/column';

/** Sure enough to act on (rules 7.3). */
const SETTLED = 0.95;

/** A converting term: what it brought in its group, how surely it reaches the target, and what promoting it would make. */
export function useTermColumns(
  groups: readonly PromotionGroup[] | undefined,
): readonly Column<PromotionLine>[] {
  const { steersBy } = useAccount().summary;
  const money = useMoney();
  const units = useUnits();
  return useMemo(() => {
    const names = new Map(groups?.map(({ key, name }) => [key, name]));
    const nameOf = ({ group }: PromotionLine) => names.get(group) ?? '';
    const byCpa = steersBy === 'CPA';
    const actual = (line: PromotionLine) => {
      const { cpaMicros, acos } = ratios({ ...noFigures(), ...line });
      return byCpa ? cpaMicros : acos;
    };
    const writeTarget = (value: number | null) => (byCpa ? money(value) : formatShare(value));
    const worth: Column<PromotionLine> = {
      ...{ id: 'value', name: 'value', px: 78, isSortable: true, isDownFirst: true },
      value: ({ valueMicros }) => units(valueMicros),
      cell: ({ valueMicros }) => money(valueMicros),
    };
    return [
      {
        ...{ id: 'term', name: 'search term', px: 150, share: 1.4, isText: true, isSortable: true },
        value: ({ term }) => term,
        cell: ({ term, isExact }) => (
          <>
            <b>{term}</b> {isExact && <span className="text-small text-soft">lacks a part</span>}
          </>
        ),
      },
      {
        ...{ id: 'group', name: 'group', px: 110, share: 0.9, isText: true, isSortable: true },
        value: nameOf,
        cell: nameOf,
      },
      {
        ...{ id: 'conversions', name: 'conv.', fullName: 'conversions', px: 54, isSortable: true },
        isDownFirst: true,
        value: ({ conversions }) => conversions,
        cell: ({ conversions }) => formatConversions(conversions),
      },
      { ...worth, isOff: byCpa },
      {
        ...{ id: 'cost', name: 'cost', px: 70, isSortable: true, isDownFirst: true },
        value: ({ costMicros }) => units(costMicros),
        cell: ({ costMicros }) => money(costMicros),
      },
      {
        ...{ id: 'actual', name: steersBy, px: 64, isSortable: true },
        value: (line) => (byCpa ? units(actual(line)) : actual(line)),
        cell: (line) => {
          const isOver = line.target !== null && (actual(line) ?? 0) > line.target;
          return <span className={isOver ? 'text-rust' : ''}>{writeTarget(actual(line))}</span>;
        },
      },
      {
        ...{ id: 'target', name: 'target', px: 64, yields: true },
        value: ({ target }) => (byCpa ? units(target) : target),
        cell: ({ target }) => writeTarget(target),
      },
      {
        ...{ id: 'reaches', name: 'reaches it', px: 84, isSortable: true, isDownFirst: true },
        explains: 'How sure it is that the term reaches the target in its group, by all days that are kept.',
        value: ({ reaches }) => reaches,
        cell: ({ reaches }) =>
          reaches === null ? (
            <span className="text-soft">–</span>
          ) : (
            <SureBar
              isGood
              sure={reaches}
              settledFrom={SETTLED}
              says={`${formatShare(reaches)} sure to reach it`}
            />
          ),
      },
      {
        ...{ id: 'searches', name: 'searches', fullName: 'searches a month', px: 72, isSortable: true },
        explains: 'As the sources of Research tell; a dash where none does.',
        isDownFirst: true,
        yields: true,
        value: ({ searches }) => searches,
        cell: ({ searches }) => (searches === null ? '–' : formatCount(searches)),
      },
      {
        ...{ id: 'served', name: 'served in', px: 110, share: 1, isText: true, yields: true },
        value: ({ servedIn }) => servedIn.first.join(', '),
        cell: ({ servedIn: { count, first } }) => (
          <span className="text-soft">
            {first[0]}
            {count > 1 && ` and ${formatCount(count - 1)} more`}
          </span>
        ),
      },
      {
        ...{ id: 'makes', name: 'makes', px: 58, isText: true },
        explains:
          'Keywords and negatives that promoting it would make: 3 + 2 are three keywords, two negatives.',
        value: ({ keywords, negatives }) => `${keywords} + ${negatives}`,
        cell: ({ keywords, negatives }) => `${keywords} + ${negatives}`,
      },
    ];
  }, [groups, steersBy, money, units]);
}
