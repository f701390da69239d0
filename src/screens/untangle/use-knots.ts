'use client';

import { useState } from 'react';
import type { Column } from '@/ui/table/column';
import { marksByKey } from '@/ui/table/row-marks';
import { inMemory, useLayout } from '@/ui/table/use-layout';

/**
 * A pile of knots as a table: the one in hand, and those that are marked.
 * @param id of the table, by which a person's layout is remembered
 * @param sorted the column it is sorted by at first, the greatest first unless `isDown` is false
 */
export function useKnots<Row extends object>(
  id: string,
  columns: readonly Column<Row>[],
  rows: readonly Row[],
  { by, isDown = true, keyOf }: { by: string; isDown?: boolean; keyOf: (row: Row) => string },
) {
  const [cursor, onCursor] = useState(0);
  const [sort, onSort] = useState({ by, isDown });
  const [marks, onMark] = useState<ReadonlySet<string>>(new Set());
  const table = inMemory(useLayout(id, columns, rows, sort));
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
