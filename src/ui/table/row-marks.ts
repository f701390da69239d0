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
