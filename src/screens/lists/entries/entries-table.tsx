'use client';

import { useMoney } from '@/screens/frame/money';
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useRef, type KeyboardEvent, type MouseEvent } from 'react';
import { formatCount, formatDay } from '@/ui/format';
import { useLightRows } from '@/ui/light-rows';
import { MatchChip } from '@/ui/match-chip';
import { HeadMark, RowMark } from '@/ui/row-mark';
import type { EntrySort, Row } from './sort-entries';

const ROW = 30;
/** Rows are drawn into the same places again; more than are ever drawn at once. */
const POOL = 160;
/** Where the screen is narrow, since when an entry stands there is said in hand alone. */
const WORDS =
  'grid-cols-[20px_minmax(120px,1fr)_58px_46px_66px_72px_48px_minmax(0,130px)_48px] @min-[780px]:grid-cols-[20px_minmax(120px,1fr)_58px_minmax(76px,158px)_46px_66px_72px_48px_minmax(0,130px)_48px]';
const PLACEMENTS = 'grid-cols-[20px_minmax(0,1fr)_160px]';
const WIDE = '@max-[780px]:hidden';

type Sort = { by: EntrySort; isDown: boolean };
type Props = {
  rows: readonly Row[];
  isWords: boolean;
  cursor: number;
  marks: ReadonlySet<string>;
  sort: Sort;
  onCursor: (index: number) => void;
  onMark: (marks: ReadonlySet<string>) => void;
  onSort: (sort: Sort) => void;
};

/** Entries of a list, a row each; what is out of sight is not drawn. */
export function EntriesTable(props: Props) {
  const { rows, isWords, cursor, marks, onCursor, onMark } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const columns = isWords ? WORDS : PLACEMENTS;
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 6,
    scrollPaddingStart: ROW,
    useFlushSync: false,
  });

  const items = virtual.getVirtualItems();
  const [from, to] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];
  const isLight = useLightRows({ isScrolling: virtual.isScrolling, from, to }, cursor);

  function go(to: number) {
    const next = Math.max(0, Math.min(rows.length - 1, to));
    onCursor(next);
    virtual.scrollToIndex(next);
  }

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

  function onKey(event: KeyboardEvent) {
    const to = {
      ...{ ArrowDown: cursor + 1, ArrowUp: cursor - 1, PageDown: cursor + 18, PageUp: cursor - 18 },
      ...{ Home: 0, End: rows.length - 1 },
    }[event.key];
    if (to !== undefined) go(to);
    else if (event.key === ' ') turn([cursor]);
    else if (event.key === 'a' && (event.ctrlKey || event.metaKey)) turn(rows.map((_, i) => i));
    else if (event.key === 'Escape') onMark(new Set());
    else return;
    event.preventDefault();
  }

  function onClick({ target, shiftKey }: MouseEvent) {
    if (!(target instanceof Element)) return;
    const index = Number(target.closest<HTMLElement>('[data-index]')?.dataset.index);
    if (Number.isNaN(index)) return;
    const [from, to] = [Math.min(cursor, index), Math.max(cursor, index)];
    if (shiftKey) turn(Array.from({ length: to - from + 1 }, (_, i) => from + i));
    else if (target.closest('[data-mark]')) turn([index]);
    onCursor(index);
    scroller.current?.focus({ preventScroll: true });
  }

  return (
    <div
      ref={scroller}
      id="entries"
      role="grid"
      tabIndex={0}
      aria-label="Entries of the list"
      aria-rowcount={rows.length + 1}
      aria-multiselectable
      aria-activedescendant={rows.length > 0 ? `entry-${cursor}` : undefined}
      className="group/grid @container min-h-0 flex-1 overflow-y-auto text-table focus-visible:outline-none"
      onKeyDown={onKey}
    >
      <Head {...props} columns={columns} onMarkAll={() => turn(rows.map((_, i) => i))} />
      {rows.length === 0 && (
        <p className="p-4 text-soft">No entry is shown. Paste lines, or loosen the filters.</p>
      )}
      <div role="rowgroup" className="relative" style={{ height: virtual.getTotalSize() }} onClick={onClick}>
        {items.map(({ index, start }) => {
          const row = rows[index]!;
          return (
            <EntryRow
              key={index % POOL}
              row={row}
              index={index}
              top={start}
              columns={columns}
              isWords={isWords}
              isLight={isLight(index)}
              isInHand={index === cursor}
              isMarked={marks.has(row.key)}
            />
          );
        })}
      </div>
    </div>
  );
}

const HEADS: { name: string; sort?: EntrySort; title?: string; isText?: boolean }[] = [
  { name: 'match' },
  { name: 'since', sort: 'since', isText: true },
  { name: 'clicks', sort: 'clicks', title: 'Clicks that it saved, estimated from the days before' },
  { name: 'cost', sort: 'cost', title: 'Cost that it saved, estimated from the days before' },
  { name: 'converting', sort: 'converting', title: 'Terms that it stopped and that had converted before' },
  { name: 'hurts', sort: 'hurts', title: 'Live keywords that it shuts out or narrows' },
  { name: 'needless by', sort: 'covers', isText: true },
  { name: 'forms', sort: 'missing', title: 'Forms of it that still pass' },
];

function Head({
  isWords,
  sort,
  onSort,
  rows,
  marks,
  columns,
  onMarkAll,
}: Props & { columns: string; onMarkAll: () => void }) {
  const heads = [
    { name: isWords ? 'text' : 'address', sort: 'text' as const, isText: true, title: undefined },
    ...(isWords ? HEADS : [{ name: 'since', isText: true }]),
  ];
  const marked = rows.filter((row) => marks.has(row.key)).length;
  return (
    <div
      role="row"
      className={`sticky top-0 z-10 grid ${columns} h-[28px] items-center gap-x-2 border-b border-line bg-sheet px-4 text-small text-soft`}
    >
      <div role="columnheader">
        <HeadMark
          marked={marked === 0 ? false : marked === rows.length ? true : 'mixed'}
          onMark={onMarkAll}
        />
      </div>
      {heads.map(({ name, sort: by, title, isText }) => (
        <div
          key={name}
          role="columnheader"
          title={title}
          aria-sort={by && sort.by === by ? (sort.isDown ? 'descending' : 'ascending') : undefined}
          className={`truncate ${isText || name === 'match' ? '' : 'text-right'} ${isWords && name === 'since' ? WIDE : ''}`}
        >
          {by ? (
            <button
              type="button"
              className={`min-h-6 hover:text-ink ${sort.by === by ? 'font-semibold text-ink' : ''}`}
              onClick={() => onSort({ by, isDown: sort.by === by ? !sort.isDown : by !== 'text' })}
            >
              {name}
              {sort.by === by && (sort.isDown ? ' ↓' : ' ↑')}
            </button>
          ) : (
            name
          )}
        </div>
      ))}
    </div>
  );
}

type RowProps = {
  row: Row;
  index: number;
  top: number;
  columns: string;
  isWords: boolean;
  /** its text alone: it is scrolled past */
  isLight: boolean;
  isInHand: boolean;
  isMarked: boolean;
};

const EntryRow = memo(function EntryRow(props: RowProps) {
  const { row, index, top, columns, isWords, isLight, isInHand, isMarked } = props;
  const { text, match, drafted, since, by, hurts, health } = row;
  const formatMoney = useMoney();
  const figure = (value: number | undefined, format = formatCount) =>
    health === undefined ? '' : health.stopped.known === 0 ? '–' : format(value!);
  return (
    <div
      role="row"
      id={`entry-${index}`}
      data-index={index}
      aria-rowindex={index + 2}
      aria-selected={isInHand}
      className={`absolute inset-x-0 grid ${columns} h-[30px] items-center gap-x-2 border-b border-line px-4 [contain:strict] ${isInHand ? 'border-l-[3px] border-l-pine bg-raised pl-[13px] -outline-offset-2 outline-pine group-focus-visible/grid:outline-2' : ''} ${isMarked ? 'bg-straw/50' : ''}`}
      style={{ top }}
    >
      <div role="gridcell">{(isMarked || !isLight) && <RowMark isMarked={isMarked} />}</div>
      <div role="gridcell" className={`truncate ${drafted === 'removed' ? 'line-through' : ''}`} title={text}>
        {text}{' '}
        {drafted && (
          <span className="text-small text-pine">
            {drafted === 'added' ? 'in the tray' : drafted === 'removed' ? 'goes with the tray' : drafted}
          </span>
        )}
      </div>
      {isWords && <div role="gridcell">{isLight ? match : <MatchChip match={match!} />}</div>}
      <div role="gridcell" className={`truncate text-soft ${isWords ? WIDE : ''}`} title={since ?? undefined}>
        {since ? formatDay(since.slice(0, 10), true) : ''} {by ?? ''}
      </div>
      {isWords && (
        <>
          <div role="gridcell" className="text-right">
            {figure(health?.stopped.clicks)}
          </div>
          <div role="gridcell" className="text-right">
            {figure(health?.stopped.costMicros, formatMoney)}
          </div>
          <div
            role="gridcell"
            className={`text-right ${(health?.stopped.returningTerms ?? 0) > 0 ? 'font-semibold text-rust' : 'text-soft'}`}
          >
            {figure(health?.stopped.returningTerms)}
          </div>
          <div
            role="gridcell"
            className={`text-right ${hurts > 0 ? 'font-semibold text-rust' : 'text-soft'}`}
          >
            {hurts}
          </div>
          <div role="gridcell" className="truncate text-timber" title={health?.coveredBy ?? undefined}>
            {health?.coveredBy ??
              (health && health.covers > 0 ? <span className="text-soft">covers {health.covers}</span> : '')}
          </div>
          <div
            role="gridcell"
            className={`text-right ${(health?.missing ?? 0) > 0 ? 'text-timber' : 'text-soft'}`}
          >
            {health ? health.missing : ''}
          </div>
        </>
      )}
    </div>
  );
});
