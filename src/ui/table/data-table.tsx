'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import {
  useCallback,
  useEffect,
  useRef,
  useState,
  type CSSProperties,
  type KeyboardEvent,
  type MouseEvent,
  type ReactNode,
} from 'react';
import { toast } from 'sonner';
import { counted } from '@/core';
import { focusWork } from '../focus-work';
import { formatCount } from '../format';
import { useLightRows } from '../light-rows';
import { usePrinted } from '../use-printed';
import { useWidth } from '../use-width';
import { saveCells, toCells, toClipboard, type Cells, type FileKind } from './cells';
import type { Column } from './column';
import { TableHead } from './head';
import { keyOfHead, keyOfRows } from './table-keys';
import type { RowMarks } from './row-marks';
import { TableMenu } from './table-menu';
import { TableRow } from './table-row';
import { nextSort, type Sort, type TableLayout } from './use-layout';
import { useSame } from './use-same';
import { widthsOf } from './widths';

const ROW = 30;
/** Rows are drawn into the same places again; more than are ever drawn at once. */
const POOL = 160;
/** Rows that are printed. */
const PRINTED = 1_000;

export type DataTableProps<Row, Look> = {
  /** of the element, which takes the focus */
  id: string;
  /** rows have this before their index as id */
  rowId?: string;
  label: string;
  layout: TableLayout<Row, Column<Row, Look>>;
  /** rows that there are, and one of them; undefined while it is on its way */
  count: number;
  rowAt: (index: number) => Row | undefined;
  cursor: number;
  onCursor: (index: number) => void;
  sort: Sort | null;
  /** the next sorting, where its head is pressed */
  onSort?: (next: Sort, column: Column<Row, Look>) => void;
  marks?: RowMarks<Row>;
  /** what else a row is drawn by; undefined for most tables */
  lookOf?: (row: Row | undefined, index: number) => Look;
  isTinted?: (row: Row | undefined, index: number) => boolean;
  /** keys of the screen's own; true where one was taken */
  onKey?: (event: KeyboardEvent) => boolean;
  onOpen?: (index: number) => void;
  /** a press within a row, before it comes in hand; true where it was taken */
  onPress?: (target: Element, index: number) => boolean;
  /** is told which rows are drawn */
  onDrawn?: (from: number, to: number) => void;
  /** the table in a file, under this name; all rows are saved, in the columns shown */
  saveAs?: string;
  /** rows that are not all here: what saves them, and the cells of those that are marked, or of the one in hand */
  far?: { save: (kind: FileKind) => void; copy: () => Promise<Cells> };
  /** cells are higher than a line, and measured */
  isMeasured?: boolean;
  rowPx?: number;
  isStale?: boolean;
  /** another one begins at its first row */
  view?: string;
  /** it is not what the screen is about: it takes no focus when it appears, nor when a dialog closes */
  isAside?: boolean;
  /** said to those who hear it */
  keysHelp?: string;
  empty?: ReactNode;
  children?: ReactNode;
};

/**
 * The table of all screens: virtual rows, columns that are chosen, sized and ordered, one stop of Tab with arrows inside,
 * rows that are marked, copied and saved.
 */
export function DataTable<Row, Look = undefined>(props: DataTableProps<Row, Look>) {
  const { id, layout, count, rowAt, cursor, onCursor, sort, marks, view } = props;
  const { rowId = `${id}-row-`, rowPx = ROW, isMeasured = false } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const [measuredBy, width] = useWidth();
  const [headAt, setHeadAt] = useState<string | null>(null);
  const [menuIsOpen, setMenuIsOpen] = useState(false);
  const widths = widthsOf(layout.columns, layout.sizes, width, marks !== undefined);
  const columns = useSame(widths.shown);
  const rows = useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowPx,
    overscan: 6,
    useFlushSync: false,
    scrollPaddingStart: ROW, // the head stays in sight
  });
  const inSight = rows.getVirtualItems();
  const [from, to] = [inSight[0]?.index ?? 0, inSight.at(-1)?.index ?? 0];
  const isPrinted = usePrinted();
  const printed = isPrinted ? Math.min(PRINTED, count) : 0;
  const items = isPrinted
    ? Array.from({ length: printed }, (_, index) => ({ index, start: 0 })).filter(
        ({ index }) => rowAt(index) !== undefined,
      )
    : inSight;
  const isLight = useLightRows({ isScrolling: rows.isScrolling, from, to }, cursor);
  const { onDrawn } = props;
  useEffect(() => onDrawn?.(from, to), [onDrawn, from, to]);
  // The table stays the same one, so that it keeps the focus and no key is lost.
  useEffect(() => {
    scroller.current?.scrollTo({ top: 0 });
  }, [view]);
  useEffect(() => {
    if (cursor > 0) rows.scrollToIndex(cursor);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only when the cursor was put elsewhere
  }, [cursor]);

  const taken = useCallback(
    (element: HTMLDivElement) => {
      scroller.current = element;
      return measuredBy(element);
    },
    [measuredBy],
  );
  useEffect(() => {
    if (!props.isAside && !document.querySelector('[role=dialog]')) focusWork();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when it appears
  }, []);
  const focus = useCallback(() => scroller.current?.focus({ preventScroll: true }), []);
  const move = (index: number) => {
    const next = Math.max(0, Math.min(count - 1, index));
    onCursor(next);
    rows.scrollToIndex(next);
  };
  const stretch = (a: number, b: number) =>
    Array.from({ length: Math.abs(a - b) + 1 }, (_, i) => Math.min(a, b) + i);
  const loaded = () => Array.from({ length: count }, (_, i) => rowAt(i)).filter((row) => row !== undefined);

  async function copy() {
    const marked = marks && marks.all !== false ? loaded().filter((row) => marks.has(row)) : [];
    const inHand = rowAt(cursor);
    const cells = props.far
      ? await props.far.copy()
      : toCells(columns, marked.length > 0 ? marked : inHand ? [inHand] : []);
    await navigator.clipboard.writeText(toClipboard(cells));
    toast(`${counted(cells.rows.length, 'row')} copied: ${cells.header.join(', ')}`);
  }

  function save(kind: FileKind) {
    setMenuIsOpen(false);
    if (props.far) return props.far.save(kind);
    void saveCells(toCells(columns, loaded()), props.saveAs!, kind).then(() =>
      toast(`${counted(count, 'row')} saved as ${props.saveAs}.${kind}`),
    );
  }

  function onKey(event: KeyboardEvent) {
    if (event.altKey || event.target !== event.currentTarget) return;
    const taken =
      headAt !== null
        ? keyOfHead(event, {
            ids: columns.map((c) => c.id),
            at: headAt,
            go: setHeadAt,
            sort: (columnId) => sortBy(columnId),
            size: (columnId, by) => layout.size(columnId, widthOfHead(id, columnId) + by),
            openMenu: () => setMenuIsOpen(true),
          })
        : keyOfRows(event, {
            ...{ cursor, count, move, marks, stretch },
            toHead: () => setHeadAt(columns[0]?.id ?? null),
            copy: () => void copy(),
            open: props.onOpen && (() => props.onOpen!(cursor)),
          }) || props.onKey?.(event);
    if (taken) event.preventDefault();
  }

  function sortBy(columnId: string) {
    const column = columns.find((c) => c.id === columnId);
    if (column?.isSortable) props.onSort?.(nextSort(sort, column), column);
  }

  // One listener for all rows, so that a row is drawn again only when something about it has changed.
  function onClick({ target, shiftKey }: MouseEvent) {
    if (!(target instanceof Element)) return;
    const index = Number(target.closest<HTMLElement>('[data-index]')?.dataset.index);
    if (Number.isNaN(index)) return;
    setHeadAt(null);
    if (marks && target.closest('[data-mark]')) marks.turn(shiftKey ? stretch(cursor, index) : [index]);
    else if (marks && shiftKey) marks.turn(stretch(cursor, index));
    else if (!props.onPress?.(target, index) && index !== cursor) onCursor(index);
    if (!target.closest('button, a, input')) focus();
  }

  return (
    <div
      ref={taken}
      id={id}
      role="grid"
      tabIndex={0}
      aria-label={props.label}
      aria-rowcount={count + 1}
      aria-multiselectable={marks !== undefined || undefined}
      aria-activedescendant={
        headAt !== null ? `${id}-head-${headAt}` : count > 0 ? `${rowId}${cursor}` : undefined
      }
      aria-describedby={props.keysHelp && `${id}-keys`}
      data-work={props.isAside ? undefined : ''}
      data-overflows={width > 0 && widths.least > width ? '' : undefined}
      className="data-table group/grid min-h-0 flex-1 overflow-auto text-table focus-visible:outline-none"
      style={{ '--columns': widths.template, '--least': `${widths.least}px` } as CSSProperties}
      onKeyDown={onKey}
      onBlur={() => setHeadAt(null)}
      onDoubleClick={({ target }) => {
        const index = Number((target as Element).closest<HTMLElement>('[data-index]')?.dataset.index);
        if (!Number.isNaN(index)) props.onOpen?.(index);
      }}
    >
      <TableHead
        id={id}
        columns={columns}
        sort={sort}
        at={headAt}
        marks={marks && { all: marks.all, turnAll: marks.turnAll }}
        menu={
          <TableMenu
            layout={layout}
            isOpen={menuIsOpen}
            onOpen={setMenuIsOpen}
            onClosed={focus}
            onSave={props.saveAs === undefined && !props.far ? undefined : save}
          />
        }
        onSort={({ id }) => sortBy(id)}
        onSize={layout.size}
      />
      {count === 0 && props.empty && (
        <div role="rowgroup">
          <div role="row">
            <div role="gridcell" className="p-4 text-soft">
              {props.empty}
            </div>
          </div>
        </div>
      )}
      <div
        role="rowgroup"
        className={`relative min-w-(--least) ${props.isStale ? 'opacity-60' : ''}`}
        style={{ height: rows.getTotalSize() }}
        onClick={onClick}
      >
        {items.map(({ index, start }) => {
          const row = rowAt(index);
          return (
            <TableRow
              key={isMeasured || isPrinted ? index : index % POOL}
              row={row}
              look={props.lookOf?.(row, index) as Look}
              columns={columns}
              index={index}
              top={start}
              height={isMeasured ? undefined : rowPx}
              idPrefix={rowId}
              hasMark={marks !== undefined}
              isLight={!isPrinted && isLight(index)}
              isInHand={index === cursor}
              isMarked={row !== undefined && marks?.has(row) === true}
              isTinted={props.isTinted?.(row, index) ?? false}
              measure={isMeasured ? rows.measureElement : undefined}
            />
          );
        })}
      </div>
      {isPrinted && items.length < count && (
        <p className="px-3 py-2 text-soft">
          The first {counted(items.length, 'row')} of {formatCount(count)}. Save the table as a file for all
          of them.
        </p>
      )}
      {props.keysHelp && (
        <p id={`${id}-keys`} className="sr-only">
          {props.keysHelp}
        </p>
      )}
      {props.children}
    </div>
  );
}

const widthOfHead = (id: string, columnId: string) =>
  Math.round(document.getElementById(`${id}-head-${columnId}`)?.getBoundingClientRect().width ?? 0);
