/**
 * Marks of rows that are all in memory, by a key of each.
 * @param rows as they are shown
 * @param marks keys of the marked rows; those of rows that are not shown count for nothing
 */
export function marksByKey<Row>(
  rows: readonly Row[],
  keyOf: (row: Row) => string,
  marks: ReadonlySet<string>,
  onMark: (marks: ReadonlySet<string>) => void,
): RowMarks<Row> {
  const marked = rows.filter((row) => marks.has(keyOf(row))).length;
  const isWhole = marked > 0 && marked === rows.length;
  const markAll = () => onMark(new Set(rows.map(keyOf)));
  const unmarkAll = () => onMark(new Set());
  return {
    has: (row) => marks.has(keyOf(row)),
    all: isWhole || (marked > 0 && 'mixed'),
    turn(indexes) {
      const next = new Set(marks);
      const keys = indexes.flatMap((i) => (rows[i] === undefined ? [] : keyOf(rows[i])));
      const areAll = keys.every((key) => next.has(key));
      for (const key of keys) {
        if (areAll) next.delete(key);
        else next.add(key);
      }
      onMark(next);
    },
    turnAll: isWhole ? unmarkAll : markAll,
    ...{ markAll, unmarkAll },
  };
}

/** The rows of a table that are marked, and marking them. */
export type RowMarks<Row> = {
  has: (row: Row) => boolean;
  all: boolean | 'mixed';
  /** one row: its mark is turned; several are marked */
  turn: (indexes: readonly number[]) => void;
  turnAll: () => void;
  markAll: () => void;
  unmarkAll: () => void;
};
