import type { AnyColumn } from './column';

/** Between two columns, and before the first and after the last, px. */
export const GAP = 6;
export const PADDING = 12;
/** The column of marks, px. */
export const MARK = 18;

export type Widths<C> = {
  /** those for which there is room, in their order */
  shown: C[];
  /** for `grid-template-columns` */
  template: string;
  /** px; a table that has less is scrolled sideways */
  least: number;
};

/**
 * The widths of columns in a table.
 * @param columns those that were chosen, in their order
 * @param sizes px by id, of those that a person has sized
 * @param room px; 0 where it is not known yet, and everything is shown
 * @param hasMarks the table begins with a column of marks
 */
export function widthsOf<C extends AnyColumn>(
  columns: readonly C[],
  sizes: Readonly<Record<string, number>>,
  room: number,
  hasMarks: boolean,
): Widths<C> {
  const shown = [...columns];
  const pxOf = ({ id, px }: C) => sizes[id] ?? px;
  const least = () =>
    2 * PADDING +
    (hasMarks ? MARK + GAP : 0) +
    shown.reduce((sum, column) => sum + pxOf(column), 0) +
    GAP * Math.max(0, shown.length - 1);
  while (room > 0 && least() > room) {
    const at = shown.findLastIndex((column) => column.yields && sizes[column.id] === undefined);
    if (at < 0) break;
    shown.splice(at, 1);
  }
  const sized = shown.map((column) =>
    column.share === undefined || sizes[column.id] !== undefined
      ? `${pxOf(column)}px`
      : `minmax(${pxOf(column)}px,${column.share}fr)`,
  );
  // Where nothing grows, what is left stays free behind the last column.
  const filler = shown.some(({ id, share }) => share !== undefined && sizes[id] === undefined) ? [] : ['1fr'];
  return {
    shown,
    template: [...(hasMarks ? [`${MARK}px`] : []), ...sized, ...filler].join(' '),
    least: least(),
  };
}
