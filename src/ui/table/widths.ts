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
  const growing = shown.filter(({ id, share }) => share !== undefined && sizes[id] === undefined);
  const grown = grownAsFarAsTheyMay(growing, room - least());
  const sized = shown.map((column) => {
    if (grown.has(column)) return `${column.most}px`;
    return growing.includes(column) ? `minmax(${column.px}px,${column.share}fr)` : `${pxOf(column)}px`;
  });
  // Where nothing grows any more, what is left stays free behind the last column.
  const filler = grown.size < growing.length ? [] : ['1fr'];
  return {
    shown,
    template: [...(hasMarks ? [`${MARK}px`] : []), ...sized, ...filler].join(' '),
    least: least(),
  };
}

/**
 * The columns that reach their greatest width.
 * @param growing columns that share what is left
 * @param free px that is left
 */
function grownAsFarAsTheyMay<C extends AnyColumn>(growing: readonly C[], free: number): ReadonlySet<C> {
  const grown = new Set<C>();
  for (let left = free, before = -1; before < grown.size;) {
    before = grown.size;
    const others = growing.filter((column) => !grown.has(column));
    const shares = others.reduce((sum, { share = 0 }) => sum + share, 0);
    for (const column of others) {
      const { px, share = 0, most = Infinity } = column;
      if (px + (left * share) / shares > most) grown.add(column);
    }
    left = free - [...grown].reduce((sum, { px, most = px }) => sum + most - px, 0);
  }
  return grown;
}
