'use client';

import { memo, type CSSProperties, type ReactNode } from 'react';
import { RowMark } from '../row-mark';
import type { Column, RowState } from './column';

type Props<Row, Look> = RowState & {
  row: Row | undefined;
  look: Look;
  columns: readonly Column<Row, Look>[];
  index: number;
  /** px from the top of all rows */
  top: number;
  /** px; undefined: as high as its cells, which are measured */
  height: number | undefined;
  /** of the element; the index is appended */
  idPrefix: string;
  hasMark: boolean;
  /** it is told apart: what is decided would reach it too */
  isTinted: boolean;
  measure?: (element: HTMLElement | null) => void;
};

function TableRowOf<Row, Look>(props: Props<Row, Look>): ReactNode {
  const {
    row,
    look,
    columns,
    index,
    top,
    height,
    hasMark,
    isInHand,
    isMarked,
    isLight,
    isTinted,
    idPrefix,
    measure,
  } = props;
  const ground = isMarked || isTinted ? 'straw-soft' : isInHand ? 'raised' : 'sheet';
  return (
    <div
      role="row"
      ref={measure}
      id={`${idPrefix}${index}`}
      data-index={index}
      aria-rowindex={index + 2}
      aria-selected={isInHand}
      className={`table-row-of absolute left-0 grid w-full min-w-(--least) items-center gap-x-1.5 border-b border-line bg-(--row) px-3 [grid-template-columns:var(--columns)] ${height === undefined ? 'py-1' : '[contain:strict]'} ${isInHand ? 'outline-pine group-focus-visible/grid:outline-2 -outline-offset-2' : ''}`}
      style={{ top, height, '--row': `var(--${ground})` } as CSSProperties}
    >
      {isInHand && <span aria-hidden className="absolute inset-y-0 left-0 w-[3px] bg-pine" />}
      {hasMark && (
        <div role="gridcell" className="table-mark">
          {(isMarked || !isLight) && <RowMark isMarked={isMarked} />}
        </div>
      )}
      {columns.map((column, at) => (
        <div
          key={column.id}
          role="gridcell"
          className={`min-w-0 ${at === 0 ? 'table-first' : ''} ${column.isText ? (at === 0 ? 'truncate' : 'truncate pl-2') : 'text-right whitespace-nowrap'}`}
        >
          {row === undefined ? at === 0 && '…' : column.cell(row, look, { isLight, isInHand, isMarked })}
        </div>
      ))}
    </div>
  );
}

/** Drawn again only when something about it has changed; of its look, each field is compared. */
export const TableRow = memo(TableRowOf, (was, is) => {
  for (const key of Object.keys(is) as (keyof typeof is)[]) {
    if (Object.is(was[key], is[key])) continue;
    if (key !== 'look' || !areAlike(was.look, is.look)) return false;
  }
  return true;
}) as typeof TableRowOf;

function areAlike(a: unknown, b: unknown): boolean {
  if (typeof a !== 'object' || typeof b !== 'object' || !a || !b) return Object.is(a, b);
  return Object.entries(b).every(([key, value]) => Object.is((a as Record<string, unknown>)[key], value));
}
