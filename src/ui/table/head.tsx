'use client';

import type { PointerEvent, ReactNode } from 'react';
import { Explain } from '../explain';
import { HeadMark } from '../row-mark';
import type { AnyColumn } from './column';
import type { Sort } from './use-layout';

export type HeadMarks = { all: boolean | 'mixed'; turnAll: () => void };

type Props<C> = {
  /** of the table; ids of heads begin with it */
  id: string;
  columns: readonly C[];
  sort: Sort | null;
  /** the column whose head the keys are at */
  at: string | null;
  marks: HeadMarks | undefined;
  menu: ReactNode;
  onSort: (column: C) => void;
  /** @param px null: as the table has it */
  onSize: (id: string, px: number | null) => void;
};

/** The heads of a data table: sorting, sizing, what a column means. No stop of Tab: the keys of the table reach them. */
export function TableHead<C extends AnyColumn>({
  id,
  columns,
  sort,
  at,
  marks,
  menu,
  onSort,
  onSize,
}: Props<C>) {
  return (
    <div role="rowgroup" className="sticky top-0 z-10 min-w-(--least) bg-sheet">
      <div
        role="row"
        aria-rowindex={1}
        className="grid h-[34px] items-center gap-x-1.5 border-b border-line px-3 text-small text-soft [grid-template-columns:var(--columns)]"
      >
        {marks && (
          <div role="columnheader" className="table-mark">
            <HeadMark marked={marks.all} onMark={marks.turnAll} />
          </div>
        )}
        {columns.map((column, index) => {
          const sorted = sort?.by === column.id;
          return (
            <div
              key={column.id}
              id={`${id}-head-${column.id}`}
              role="columnheader"
              data-column={column.id}
              aria-sort={sorted ? (sort.isDown ? 'descending' : 'ascending') : undefined}
              className={`relative flex min-w-0 items-center gap-0.5 ${index === 0 ? 'table-first' : ''} ${column.isText ? (index === 0 ? '' : 'pl-2') : 'justify-end'} ${at === column.id ? 'outline-2 -outline-offset-1 outline-pine' : ''}`}
            >
              {column.isSortable ? (
                <button
                  type="button"
                  tabIndex={-1}
                  data-prints
                  className={`min-h-6 leading-[13px] whitespace-normal hover:text-ink ${column.isText ? 'text-left' : 'text-right'} ${sorted ? 'font-semibold text-ink' : ''}`}
                  onClick={() => onSort(column)}
                >
                  {column.name}
                  {sorted && (sort.isDown ? ' ↓' : ' ↑')}
                </button>
              ) : (
                <span className="truncate">{column.name}</span>
              )}
              {column.explains && (
                <Explain
                  about={column.name}
                  isOutOfTabOrder
                  isShown={at === column.id}
                  className="-mx-0.5 shrink-0"
                >
                  {column.explains}
                </Explain>
              )}
              {index === 0 && menu}
              <SizeGrip onSize={(px) => onSize(column.id, px)} />
            </div>
          );
        })}
      </div>
    </div>
  );
}

const LEAST = 28;

/** Drawn, it sizes its column; pressed twice, the column is as the table has it. */
function SizeGrip({ onSize }: { onSize: (px: number | null) => void }) {
  function onDown(event: PointerEvent<HTMLSpanElement>) {
    event.preventDefault();
    const grip = event.currentTarget;
    const from = event.clientX;
    const width = grip.parentElement!.getBoundingClientRect().width;
    const onMove = ({ clientX }: globalThis.PointerEvent) =>
      onSize(Math.max(LEAST, Math.round(width + clientX - from)));
    const onUp = () => grip.removeEventListener('pointermove', onMove);
    grip.setPointerCapture(event.pointerId);
    grip.addEventListener('pointermove', onMove);
    grip.addEventListener('pointerup', onUp, { once: true });
    grip.addEventListener('pointercancel', onUp, { once: true });
  }
  return (
    <span
      aria-hidden
      className="absolute -inset-y-1 -right-1.5 w-2 cursor-col-resize touch-none hover:bg-line"
      onPointerDown={onDown}
      onDoubleClick={() => onSize(null)}
    />
  );
}
