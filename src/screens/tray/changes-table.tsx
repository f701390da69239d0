'use client';

import { useMemo, useState } from 'react';
import type { TrayChange } from '@/contracts/tray';
import { stopsIn } from '@/core';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatCount, formatDay } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { useLayout, type Sort } from '@/ui/table/use-layout';
import { CommentCell } from './comment-cell';
import { useTrayActions } from './use-tray';

/** What will change, a row a change; what is out of sight is not drawn. The row in hand has fields, the others say what stands in them. */
export function ChangesTable({ changes }: { changes: readonly TrayChange[] }) {
  const { setEnd } = useTrayActions();
  const [inHand, setInHand] = useState<number | null>(null);
  const current = inHand ?? changes[0]?.id;
  const columns = useChangeColumns(setEnd, current);
  const [sort, setSort] = useState<Sort | null>(null);
  const layout = useLayout('changes', columns, changes as TrayChange[], sort);
  return (
    <DataTable
      id="changes"
      label="What will change"
      layout={layout}
      count={changes.length}
      rowAt={(index) => layout.rows[index]}
      cursor={Math.max(
        0,
        layout.rows.findIndex(({ id }) => id === current),
      )}
      onCursor={(index) => setInHand(layout.rows[index]?.id ?? null)}
      sort={sort}
      onSort={setSort}
      isMeasured
      isAside
      saveAs="changes in the tray"
    />
  );
}

type SetEnd = ReturnType<typeof useTrayActions>['setEnd'];

/** @param current the change in hand */
function useChangeColumns(setEnd: SetEnd, current: number | undefined): readonly Column<TrayChange>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo(() => {
    const columns: Column<TrayChange>[] = [
      {
        ...{ id: 'change', name: 'change', px: 240, share: 1, isText: true, isSortable: true },
        value: ({ said }) => said,
        cell: ({ said }) => <span className="block whitespace-normal">{said}</span>,
      },
      {
        ...{ id: 'by', name: 'put in by', px: 96, isText: true, isSortable: true },
        value: ({ by }) => by,
        cell: ({ by }) => <span className="text-soft">{by}</span>,
      },
      {
        ...{ id: 'terms', name: 'terms', px: 52, isSortable: true, explains: ADDS },
        value: ({ stops }) => stops.terms,
        cell: ({ stops }) => formatCount(stops.terms),
      },
      {
        ...{ id: 'clicks', name: 'clicks', px: 56, isSortable: true },
        value: ({ stops }) => stops.clicks,
        cell: ({ stops }) => formatCount(stops.clicks ?? 0),
      },
      {
        ...{ id: 'cost', name: 'cost', px: 72, isSortable: true },
        value: ({ stops }) => units(stops.costMicros),
        cell: ({ stops }) => money(stops.costMicros ?? 0),
      },
      {
        ...{ id: 'opens', name: 'opens again', px: 64, isSortable: true, explains: OPENS },
        value: ({ reopens }) => reopens.terms,
        cell: ({ reopens }) =>
          reopens.terms > 0 ? <b>{formatCount(reopens.terms)}</b> : <span className="text-soft">–</span>,
      },
      {
        ...{ id: 'until', name: 'ends on', px: 122, isText: true, isSortable: true, explains: ENDS },
        value: ({ endsOn }) => endsOn ?? '',
        cell: (change) =>
          stopsIn(change.change) && change.id === current ? (
            <EndField change={change} setEnd={setEnd} />
          ) : (
            <span className="text-soft">{change.endsOn ? formatDay(change.endsOn, true) : '–'}</span>
          ),
      },
      {
        ...{ id: 'comments', name: 'comments', px: 110, isText: true },
        value: ({ comments }) => comments.map(({ by, text }) => `${by}: ${text}`).join('; '),
        cell: (change) => <CommentCell change={change} isInHand={change.id === current} />,
      },
    ];
    return columns;
  }, [money, units, setEnd, current]);
}

/** The day on which a stop is taken back; it is stored when the field is left, or by Enter. */
function EndField({ change: { id, said, endsOn }, setEnd }: { change: TrayChange; setEnd: SetEnd }) {
  const [typed, setTyped] = useState(endsOn ?? '');
  const store = () => {
    if (typed !== (endsOn ?? '')) void setEnd([id], typed === '' ? null : typed);
  };
  return (
    <input
      type="date"
      aria-label={`Ends on: ${said}`}
      className="w-full border-b border-dashed border-soft bg-transparent text-small"
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={store}
      onKeyDown={(event) => {
        event.stopPropagation(); // the arrows turn the day, not the row
        if (event.key === 'Enter') store();
      }}
    />
  );
}

const ENDS = 'On that day the stop is taken back by itself: for a season, or for stock that comes again.';
const ADDS = 'Terms that the change stops beyond those that the changes before it stop.';
const OPENS = 'Terms that were stopped, and that the change lets through again.';
