import type { KeyboardEvent } from 'react';
import type { RowMarks } from './row-marks';

const SCREENFUL = 18;
/** What an arrow sizes a column by, px. */
const STEP = 8;

type Rows = {
  cursor: number;
  count: number;
  move: (index: number) => void;
  stretch: (a: number, b: number) => number[];
  marks: Pick<RowMarks<never>, 'turn' | 'markAll' | 'unmarkAll'> | undefined;
  toHead: () => void;
  copy: () => void;
  open: (() => void) | undefined;
};

/** The keys of every table while they are among its rows. @returns whether the key was one of them */
export function keyOfRows(event: KeyboardEvent, rows: Rows): boolean {
  const { cursor, marks, move } = rows;
  const action =
    event.ctrlKey || event.metaKey
      ? { a: marks?.markAll, c: rows.copy }[event.key.toLowerCase()]
      : event.shiftKey
        ? stretching(event.key, rows)
        : {
            ArrowDown: () => move(cursor + 1),
            ArrowUp: () => (cursor === 0 ? rows.toHead() : move(cursor - 1)),
            PageDown: () => move(cursor + SCREENFUL),
            PageUp: () => move(cursor - SCREENFUL),
            Home: () => move(0),
            End: () => move(Number.MAX_SAFE_INTEGER),
            Enter: rows.open,
            ' ': marks && (() => marks.turn([cursor])),
            Escape: marks?.unmarkAll,
          }[event.key];
  action?.();
  return action !== undefined;
}

/** Shift and an arrow mark the rows that are passed. */
function stretching(key: string, { cursor, count, move, stretch, marks }: Rows): (() => void) | undefined {
  const next = { ArrowDown: cursor + 1, ArrowUp: cursor - 1 }[key];
  if (next === undefined || !marks) return undefined;
  return () => {
    if (next < 0 || next >= count) return;
    marks.turn(stretch(cursor, next));
    move(next);
  };
}

type Heads = {
  ids: readonly string[];
  at: string;
  /** null: back among the rows */
  go: (id: string | null) => void;
  sort: (id: string) => void;
  size: (id: string, by: number) => void;
  openMenu: () => void;
};

/** The keys while they are at the heads, above the first row. @returns whether the key was one of them */
export function keyOfHead(event: KeyboardEvent, { ids, at, go, sort, size, openMenu }: Heads): boolean {
  const index = ids.indexOf(at);
  const beside = (by: number) => go(ids[Math.max(0, Math.min(ids.length - 1, index + by))] ?? null);
  const action = event.shiftKey
    ? { ArrowRight: () => size(at, STEP), ArrowLeft: () => size(at, -STEP) }[event.key]
    : {
        ArrowRight: () => beside(1),
        ArrowLeft: () => beside(-1),
        ArrowDown: () => go(null),
        Escape: () => go(null),
        Enter: () => sort(at),
        ' ': openMenu,
      }[event.key];
  action?.();
  return action !== undefined;
}
