'use client';

import { useState } from 'react';
import type { Column } from '@/ui/table/column';
import { marksByKey } from '@/ui/table/row-marks';
import { inMemory, useLayout, type Sort } from '@/ui/table/use-layout';

type Options<Row> = {
  /** how the table is sorted before a person sorts it */
  first: Sort;
  /** what a person sorted by holds as long as this is the same */
  over: string;
  keyOf: (row: Row) => string;
  /** the line that is in hand at first */
  start?: string | null;
};

/**
 * A table of lines that are all there: the one in hand, and those that are marked.
 * @param id of the table, by which a person's layout is remembered
 */
export function useLineTable<Row extends object>(
  id: string,
  columns: readonly Column<Row>[],
  rows: readonly Row[],
  { first, over, keyOf, start = null }: Options<Row>,
) {
  const [moved, onCursor] = useState<number | null>(null);
  const [chosen, setChosen] = useState<{ sort: Sort; over: string } | null>(null);
  const [marks, onMark] = useState<ReadonlySet<string>>(new Set());
  const holds = chosen?.over === over && columns.some((column) => column.id === chosen.sort.by);
  const sort = holds ? chosen.sort : first;
  const onSort = (next: Sort) => setChosen({ sort: next, over });
  const table = inMemory(useLayout(id, columns, rows, sort));
  const cursor =
    moved ?? Math.max(0, start === null ? 0 : table.layout.rows.findIndex((row) => keyOf(row) === start));
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
