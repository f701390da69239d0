'use client';

import { useMemo, useState } from 'react';
import type { TrayChange } from '@/contracts/tray';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatCount } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { useLayout, type Sort } from '@/ui/table/use-layout';

/** What will change, a row a change; what is out of sight is not drawn. */
export function ChangesTable({ changes }: { changes: readonly TrayChange[] }) {
  const columns = useChangeColumns();
  const [sort, setSort] = useState<Sort | null>(null);
  const [cursor, setCursor] = useState(0);
  const layout = useLayout('changes', columns, changes as TrayChange[], sort);
  return (
    <DataTable
      id="changes"
      label="What will change"
      layout={layout}
      count={changes.length}
      rowAt={(index) => layout.rows[index]}
      cursor={Math.min(cursor, Math.max(0, changes.length - 1))}
      onCursor={setCursor}
      sort={sort}
      onSort={setSort}
      isMeasured
      isAside
      saveAs="changes in the tray"
    />
  );
}

function useChangeColumns(): readonly Column<TrayChange>[] {
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
    ];
    return columns;
  }, [money, units]);
}

const ADDS = 'Terms that the change stops beyond those that the changes before it stop.';
const OPENS = 'Terms that were stopped, and that the change lets through again.';
