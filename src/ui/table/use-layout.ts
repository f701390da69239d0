'use client';

import {
  columnOrderingFeature,
  columnSizingFeature,
  columnVisibilityFeature,
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type RowData,
  type Updater,
} from '@tanstack/react-table';
import { useMemo } from 'react';
import { useStored } from '../stored';
import type { AnyColumn, Column, Value } from './column';

const features = tableFeatures({
  columnOrderingFeature,
  columnVisibilityFeature,
  columnSizingFeature,
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
});

export type Sort = { by: string; isDown: boolean };

/**
 * What pressing a head sorts by: what is sorted by it already is turned round; else text goes up, and figures go down.
 */
export function nextSort(sort: Sort | null, { id, isText, isDownFirst }: AnyColumn): Sort {
  return { by: id, isDown: sort?.by === id ? !sort.isDown : (isDownFirst ?? !isText) };
}

/** What a person has chosen of the columns of a table; remembered in this browser. */
type Layout = {
  /** by id, where it is other than the column says */
  visible: Record<string, boolean>;
  /** px by id */
  sizes: Record<string, number>;
  /** ids; those that are new since come last */
  order: string[];
};

const parseLayout = (text: string | null): Layout => {
  try {
    return { visible: {}, sizes: {}, order: [], ...(text ? (JSON.parse(text) as Partial<Layout>) : {}) };
  } catch {
    return { visible: {}, sizes: {}, order: [] };
  }
};

/** The columns of a table as a person has chosen, sized and ordered them, and its rows in their order. */
export type TableLayout<Row, C> = {
  /** those that are shown, in their order */
  columns: C[];
  /** all, in their order */
  all: C[];
  sizes: Readonly<Record<string, number>>;
  rows: readonly Row[];
  isShown(id: string): boolean;
  show(id: string, isShown: boolean): void;
  /** @param px null: as the table has it */
  size(id: string, px: number | null): void;
  order(ids: readonly string[]): void;
  reset(): void;
};

/**
 * @param name under which the choice is remembered
 * @param rows in memory, which are sorted here; none for a table whose rows come sorted
 */
export function useLayout<Row extends RowData, Look>(
  name: string,
  columns: readonly Column<Row, Look>[],
  rows: readonly Row[],
  sort: Sort | null,
): TableLayout<Row, Column<Row, Look>> {
  const [stored, storeText] = useStored(`gatepost-table-${name}`, parseLayout);
  const store = (next: Partial<Layout>) => storeText(JSON.stringify({ ...stored, ...next }));
  const defs = useMemo(
    () =>
      columns.map<ColumnDef<typeof features, Row>>(({ id, px, value }) => ({
        id,
        accessorFn: (row) => value(row) ?? undefined, // what is not known comes last either way
        sortFn: (a, b) => compareValues(value(a.original), value(b.original)),
        sortUndefined: 'last',
        size: px,
      })),
    [columns],
  );
  const columnVisibility = useMemo<Record<string, boolean>>(
    () => ({
      ...Object.fromEntries(columns.filter((c) => c.isOff).map((c) => [c.id, false])),
      ...stored.visible,
    }),
    [columns, stored],
  );
  const { by, isDown } = sort ?? {};
  const sorting = useMemo(() => (by === undefined ? [] : [{ id: by, desc: isDown === true }]), [by, isDown]);
  const take = <T>(updater: Updater<T>, now: T): T =>
    typeof updater === 'function' ? (updater as (old: T) => T)(now) : updater;
  const table = useTable({
    features,
    columns: defs,
    data: rows as Row[],
    enableSortingRemoval: false,
    state: {
      columnOrder: stored.order,
      columnVisibility,
      columnSizing: stored.sizes,
      sorting,
    },
    onColumnOrderChange: (next: Updater<string[]>) => store({ order: take(next, stored.order) }),
    onColumnVisibilityChange: (next: Updater<Record<string, boolean>>) =>
      store({ visible: take(next, columnVisibility) }),
    onColumnSizingChange: (next: Updater<Record<string, number>>) =>
      store({ sizes: take(next, stored.sizes) }),
  });
  const byId = new Map(columns.map((column) => [column.id, column]));
  const own = (ids: readonly { id: string }[]) => ids.map(({ id }) => byId.get(id)!);
  return {
    columns: own(table.getVisibleLeafColumns()),
    all: own(table.getAllLeafColumns()),
    sizes: stored.sizes,
    rows: rows.length === 0 || !sort ? rows : table.getRowModel().rows.map((row) => row.original),
    isShown: (id) => columnVisibility[id] !== false,
    show: (id, isShown) => table.setColumnVisibility((now) => ({ ...now, [id]: isShown })),
    size: (id, px) =>
      table.setColumnSizing(({ [id]: _, ...others }) => (px === null ? others : { ...others, [id]: px })),
    order: (ids) => table.setColumnOrder([...ids]),
    reset: () => storeText('{}'),
  };
}

/** What a table of rows in memory is given of its layout. */
export function inMemory<Row, C>(layout: TableLayout<Row, C>) {
  const { rows } = layout;
  return { layout, count: rows.length, rowAt: (index: number) => rows[index] };
}

const collator = new Intl.Collator('en', { numeric: true });

/** Ascending; what is not known is left where the table puts it. */
function compareValues(a: Value, b: Value): number {
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  return collator.compare(String(a ?? ''), String(b ?? ''));
}
