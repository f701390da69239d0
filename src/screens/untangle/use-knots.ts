'use client';

import { createElement, useMemo } from 'react';
import type { KnotKind } from '@/contracts/knots';
import type { Column } from '@/ui/table/column';
import { useLineTable } from '@/screens/frame/line-table';
import { useFresh } from './use-fresh';

/**
 * A pile of knots as a table: the one in hand, and those that are marked. What came since the person looked last comes first.
 * @param id of the table, by which a person's layout is remembered
 * @param sorted the column it is sorted by at first, the greatest first unless `isDown` is false
 */
export function useKnots<Row extends object>(
  id: string,
  columns: readonly Column<Row>[],
  rows: readonly Row[],
  {
    kind,
    by,
    isDown = true,
    isNewFirst = true,
    keyOf,
  }: { kind: KnotKind; by: string; isDown?: boolean; isNewFirst?: boolean; keyOf: (row: Row) => string },
) {
  const fresh = useFresh(kind);
  const hasFresh = useMemo(() => rows.some((row) => fresh.has(keyOf(row))), [rows, fresh, keyOf]);
  const all = useMemo(
    () => (hasFresh ? [newColumn((row: Row) => fresh.has(keyOf(row))), ...columns] : columns),
    [columns, hasFresh, fresh, keyOf],
  );
  const first = hasFresh && isNewFirst ? { by: 'new', isDown: true } : { by, isDown };
  // What a person sorted by holds until the table is asked for in another order.
  return useLineTable(id, all, rows, { first, over: by, keyOf });
}

function newColumn<Row>(isNew: (row: Row) => boolean): Column<Row> {
  return {
    ...{ id: 'new', name: 'new', px: 48, isText: true, isSortable: true, isDownFirst: true },
    explains: 'It came since you looked at it last.',
    value: (row) => (isNew(row) ? 'new' : ''),
    cell: (row) => isNew(row) && createElement('b', { className: 'text-rust' }, 'new'),
  };
}
