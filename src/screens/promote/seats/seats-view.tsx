'use client';

import { useMemo } from 'react';
import type { MatchType } from '@/core';
import type { PromotionGroup, PromotionsView } from '@/contracts/promotion';
import { useAccount } from '@/screens/frame/account-context';
import { useLineTable } from '@/screens/frame/line-table';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatCount, formatShare } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { usePromoteUrl } from '../promote-url';
import { GroupInHand } from './group-in-hand';

const NO_GROUPS: PromotionGroup[] = [];
const keyOf = ({ key }: PromotionGroup) => key;

/** Product groups, and campaigns whose ad groups are in none, with the ad groups that are their seats. */
export function SeatsView({ view }: { view: PromotionsView | undefined }) {
  const groups = view?.groups ?? NO_GROUPS;
  const [{ seatsOf }] = usePromoteUrl();
  const columns = useSeatColumns();
  const table = useLineTable('seats', columns, groups, {
    ...{ first: { by: 'terms', isDown: true }, over: 'seats', keyOf, start: seatsOf },
  });
  return (
    <>
      <DataTable
        label="Seats"
        {...table.table}
        saveAs="seats"
        keysHelp="Arrows move; Tab goes on to the seats of the group in hand."
        empty={view && <p>No ad group is known yet: bring a report first.</p>}
      />
      {/* by name: a campaign that becomes a product group is the same one */}
      <GroupInHand key={table.line?.name} group={table.line} />
    </>
  );
}

function useSeatColumns(): readonly Column<PromotionGroup>[] {
  const { steersBy } = useAccount().summary;
  const money = useMoney();
  const units = useUnits();
  return useMemo(() => {
    const seat = (match: MatchType): Column<PromotionGroup> => ({
      ...{ id: match, name: `${match} seat`, px: 120, share: 1, isText: true, isSortable: true },
      value: ({ seats }) => seats[match]?.adGroup ?? '',
      cell: ({ seats, gone }) => {
        const one = seats[match];
        const lost = gone.find((each) => each.match === match);
        return (
          <>
            {one ? one.adGroup : <span className="text-soft">none</span>}
            {one && !one.isChosen && <span className="text-small text-soft"> found</span>}
            {one && one.state !== 'serves' && <span className="text-small text-timber"> {one.state}</span>}
            {lost && <span className="text-small text-rust"> {lost.adGroup} is gone</span>}
          </>
        );
      },
    });
    return [
      {
        ...{ id: 'name', name: 'group', px: 190, share: 1.2, isText: true, isSortable: true },
        value: ({ name }) => name,
        cell: ({ name, isOwn }) => (
          <>
            <b>{name}</b> {!isOwn && <span className="text-small text-soft">campaign</span>}
          </>
        ),
      },
      {
        ...{ id: 'adGroups', name: 'ad groups', px: 78, isSortable: true },
        value: ({ adGroups }) => adGroups,
        cell: ({ adGroups }) => formatCount(adGroups),
      },
      {
        ...{ id: 'target', name: 'target', px: 64, isSortable: true },
        value: ({ target }) => (steersBy === 'CPA' ? units(target) : target),
        cell: ({ target }) => (steersBy === 'CPA' ? money(target) : formatShare(target)),
      },
      ...[seat('exact'), seat('phrase'), seat('broad')],
      {
        ...{ id: 'terms', name: 'terms to promote', px: 84, isSortable: true, isDownFirst: true },
        value: ({ terms }) => terms,
        cell: ({ terms }) => formatCount(terms),
      },
    ];
  }, [steersBy, money, units]);
}
