'use client';

import { createElement, useMemo, useState } from 'react';
import type { KnotKind } from '@/contracts/knots';
import type { Column } from '@/ui/table/column';
import { marksByKey } from '@/ui/table/row-marks';
import { inMemory, useLayout, type Sort } from '@/ui/table/use-layout';
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
  const [cursor, onCursor] = useState(0);
  // What a person sorted by holds until the table is asked for in another order.
  const [chosen, setChosen] = useState<{ sort: Sort; over: string } | null>(null);
  const [marks, onMark] = useState<ReadonlySet<string>>(new Set());
  const hasFresh = useMemo(() => rows.some((row) => fresh.has(keyOf(row))), [rows, fresh, keyOf]);
  const all = useMemo(
    () => (hasFresh ? [newColumn((row: Row) => fresh.has(keyOf(row))), ...columns] : columns),
    [columns, hasFresh, fresh, keyOf],
  );
  const first = hasFresh && isNewFirst ? { by: 'new', isDown: true } : { by, isDown };
  const holds = chosen?.over === by && (hasFresh || chosen.sort.by !== 'new');
  const sort = holds ? chosen.sort : first;
  const onSort = (next: Sort) => setChosen({ sort: next, over: by });
  const table = inMemory(useLayout(id, all, rows, sort));
  const at = Math.min(cursor, Math.max(0, rows.length - 1));
  return {
    line: table.rowAt(at),
    marked: rows.filter((row) => marks.has(keyOf(row))),
    unmark: () => onMark(new Set()),
    /** for a table without marks */
    table: { id, ...table, cursor: at, onCursor, sort, onSort },
    marks: marksByKey(table.layout.rows, keyOf, marks, onMark),
  };
}

function newColumn<Row>(isNew: (row: Row) => boolean): Column<Row> {
  return {
    ...{ id: 'new', name: 'new', px: 48, isText: true, isSortable: true, isDownFirst: true },
    explains: 'It came since you looked at it last.',
    value: (row) => (isNew(row) ? 'new' : ''),
    cell: (row) => isNew(row) && createElement('b', { className: 'text-rust' }, 'new'),
  };
}
