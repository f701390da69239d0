'use client';

import { DataTable } from '@/ui/table/data-table';
import type { Sort, TableLayout } from '@/ui/table/use-layout';
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
  const marked = rows.filter((row) => marks.has(row.key)).length;
  const isWhole = marked > 0 && marked === rows.length;
  const markAll = () => onMark(new Set(rows.map(({ key }) => key)));
  const unmarkAll = () => onMark(new Set());

  function turn(indexes: readonly number[]) {
    const next = new Set(marks);
    const keys = indexes.flatMap((i) => rows[i]?.key ?? []);
    const areAll = keys.every((key) => next.has(key));
    for (const key of keys) {
      if (areAll) next.delete(key);
      else next.add(key);
    }
    onMark(next);
  }

  return (
    <DataTable
      id="entries"
      rowId="entry-"
      label="Entries of the list"
      layout={layout}
      count={rows.length}
      rowAt={(index) => rows[index]}
      cursor={cursor}
      onCursor={onCursor}
      sort={sort}
      onSort={({ id, isText }) => onSort({ by: id, isDown: sort.by === id ? !sort.isDown : !isText })}
      marks={{
        has: ({ key }) => marks.has(key),
        all: isWhole || (marked > 0 && 'mixed'),
        turn,
        turnAll: isWhole ? unmarkAll : markAll,
        ...{ markAll, unmarkAll },
      }}
      saveAs={`entries of ${name}`}
      empty="No entry is shown. Paste lines, or loosen the filters."
    />
  );
}
