'use client';

import { DataTable } from '@/ui/table/data-table';
import { marksByKey } from '@/ui/table/row-marks';
import { inMemory, type Sort, type TableLayout } from '@/ui/table/use-layout';
import type { Column } from '@/ui/table/column';
import type { Row } from './pick-entries';

type Props = {
  /** of the list */
  name: string;
  layout: TableLayout<Row, Column<Row>>;
  cursor: number;
  marks: ReadonlySet<string>;
  sort: Sort;
  onCursor: (index: number) => void;
  onMark: (marks: ReadonlySet<string>) => void;
  onSort: (sort: Sort) => void;
};

/** Entries of a list, a row each; what is out of sight is not drawn. */
export function EntriesTable({ name, layout, cursor, marks, sort, onCursor, onMark, onSort }: Props) {
  const { rows } = layout;
  return (
    <DataTable
      id="entries"
      rowId="entry-"
      label="Entries of the list"
      {...inMemory(layout)}
      cursor={cursor}
      onCursor={onCursor}
      sort={sort}
      onSort={onSort}
      marks={marksByKey(rows, ({ key }) => key, marks, onMark)}
      saveAs={`entries of ${name}`}
      empty="No entry is shown. Paste lines, or loosen the filters."
    />
  );
}
