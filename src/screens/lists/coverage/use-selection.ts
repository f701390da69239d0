'use client';

import { useState } from 'react';
import type { Column } from './columns';

/** A rectangle of cells, by row and column, from where it was begun to where it ends. */
export type Selection = { from: [number, number]; to: [number, number] };

export type Picked = { lists: number[]; campaigns: number[] };

const between = (a: number, b: number) =>
  Array.from({ length: Math.abs(a - b) + 1 }, (_, i) => Math.min(a, b) + i);

/** Lists and campaigns of a rectangle. */
export function pickedOf({ from, to }: Selection, columns: readonly Column[], rows: number): Picked {
  return {
    lists: between(from[0], to[0]).filter((row) => row < rows),
    campaigns: between(from[1], to[1]).flatMap((column) => columns[column]?.campaigns ?? []),
  };
}

export function isPicked({ from, to }: Selection, row: number, column: number): boolean {
  const isIn = (at: number, a: number, b: number) => at >= Math.min(a, b) && at <= Math.max(a, b);
  return isIn(row, from[0], to[0]) && isIn(column, from[1], to[1]);
}

/** Where the cursor stands in the grid, and what is marked from there. */
export function useSelection() {
  const [selection, setSelection] = useState<Selection>({ from: [0, 0], to: [0, 0] });
  return {
    selection,
    /** goes to a cell; with `extend`, marks up to it */
    goTo(row: number, column: number, extend: boolean) {
      setSelection(({ from }) => ({ from: extend ? from : [row, column], to: [row, column] }));
    },
    pick: setSelection,
  };
}
