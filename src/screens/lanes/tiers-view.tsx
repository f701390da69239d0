'use client';

import { useMemo } from 'react';
import { counted, listed } from '@/core';
import type { ShownLanes, TierView } from '@/contracts/lanes';
import { InHand } from '@/screens/frame/in-hand';
import { useLineTable } from '@/screens/frame/line-table';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatConversions, formatCount, formatDay } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';

const keyOf = ({ name }: TierView) => name;

/** Each tier as it served, beside what it would have served by the plan, at the tiers' own rates. */
export function TiersView({ shown }: { shown: ShownLanes }) {
  const columns = useTierColumns();
  const table = useLineTable('tiers', columns, shown.tiers, {
    ...{ first: { by: '', isDown: false }, over: shown.key, keyOf },
  });
  const { line } = table;
  return (
    <>
      <DataTable
        label="Tiers by this plan"
        {...table.table}
        saveAs={`tiers of ${shown.name}`}
        keysHelp="Arrows move."
        empty={<p>The plan has no tiers.</p>}
      />
      <InHand title={line?.name}>
        {line && (
          <div className="mt-1 flex flex-col gap-1.5 text-table">
            <p>{listed(line.places)}</p>
            <p>
              {counted(line.needs, 'negative')} keep queries for later tiers
              {line.missing > 0 && (
                <span className="text-rust">
                  ; {formatCount(line.missing)} of them {line.missing === 1 ? 'is' : 'are'} missing
                </span>
              )}
              .
            </p>
            {line.isPaused && <p className="text-rust">It does not run: nothing of it can serve today.</p>}
            {line.dryDays.length > 0 && (
              <p className="text-rust">
                It spent its budget on {counted(line.dryDays.length, 'day')}, the last on{' '}
                {formatDay(line.dryDays.at(-1)!)}, held against its budget of today.
              </p>
            )}
            <p className="text-small text-soft">
              By the plan: clicks that move cost and bring what they do in the tier to which they move. What
              another bid would win besides, no report tells.
            </p>
          </div>
        )}
      </InHand>
    </>
  );
}

function useTierColumns(): readonly Column<TierView>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo(() => {
    const pair = (
      id: 'clicks' | 'costMicros' | 'conversions',
      name: string,
      write: (value: number | null) => string,
    ): Column<TierView>[] =>
      (['really', 'byPlan'] as const).map((of) => {
        const worth = (tier: TierView) => (id === 'costMicros' ? units(tier[of][id]) : tier[of][id]);
        return {
          ...{ id: `${id} ${of}`, name: of === 'really' ? name : 'by the plan', px: 74, isSortable: true },
          ...{ fullName: of === 'really' ? name : `${name} by the plan`, isDownFirst: true },
          value: worth,
          cell: (tier: TierView) => (of === 'really' ? write(tier[of][id]) : <b>{write(tier[of][id])}</b>),
        };
      });
    return [
      {
        ...{ id: 'name', name: 'tier', px: 150, share: 1.2, isText: true },
        value: ({ name }) => name,
        cell: ({ name, isPaused, dryDays }) => (
          <>
            <b>{name}</b>
            {isPaused && <span className="text-small text-rust"> does not run</span>}
            {dryDays.length > 0 && (
              <span className="text-small text-rust"> dry on {counted(dryDays.length, 'day')}</span>
            )}
          </>
        ),
      },
      {
        ...{ id: 'places', name: 'where', px: 120, share: 1, isText: true, yields: true },
        value: ({ places }) => places.join(', '),
        cell: ({ places }) => <span className="text-soft">{places.join(', ')}</span>,
      },
      ...pair('clicks', 'clicks', (value) => formatCount(Math.round(value ?? 0))),
      ...pair('costMicros', 'cost', (value) => money(value)),
      ...pair('conversions', 'conv.', formatConversions),
    ];
  }, [money, units]);
}
