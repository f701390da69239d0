import { memo, useMemo } from 'react';
import type { ListLine } from '@/contracts/lists';
import { formatCount } from '@/ui/format';
import { StateIcon } from '@/ui/state-icon';
import { cellState, type CellColumns } from './cells';
import type { Column } from './columns';
import { LEFT, NARROW } from './grid-sizes';
import { isPicked, type Selection } from './use-selection';

type RowProps = {
  list: ListLine;
  cells: CellColumns;
  columns: readonly Column[];
  row: number;
  top: number;
  width: number;
  /** null where nothing of the row is marked */
  selection: Selection | null;
  first: number;
  last: number;
  startOf: string;
};

/** A list, and its gates on the campaigns in sight. */
export const Row = memo(function Row({
  list,
  cells,
  columns,
  row,
  top,
  width,
  selection,
  first,
  last,
  startOf,
}: RowProps) {
  const places = useMemo(() => startOf.split(',').map((place) => place.split(':').map(Number)), [startOf]);
  const hungOn =
    list.hungOn === 'account'
      ? 'account'
      : list.hungOn.length === 0
        ? 'nowhere'
        : formatCount(list.hungOn.length);
  return (
    <div
      role="row"
      aria-rowindex={row + 2}
      className={`absolute flex h-[32px] min-w-full items-center border-b border-line [contain:strict] ${selection ? 'bg-raised' : ''}`}
      style={{ top, width }}
    >
      <div
        role="rowheader"
        data-row={row}
        className={`sticky left-0 z-10 flex h-full w-[272px] shrink-0 cursor-pointer items-center gap-2 px-4 ${selection ? 'bg-raised' : 'bg-sheet'}`}
      >
        <span className="min-w-0 flex-1 truncate font-semibold" title={list.name}>
          {list.name}
          {list.waits && <span className="ml-1 font-normal text-rust">changed elsewhere</span>}
        </span>
        <span className="w-[44px] text-right">{formatCount(list.entries)}</span>
        <span className={`w-[56px] text-right ${hungOn === 'nowhere' ? 'font-semibold text-rust' : ''}`}>
          {list.isNew ? 'new' : hungOn}
        </span>
      </div>
      {columns.slice(first, last + 1).map((column, i) => {
        const at = first + i;
        const [start = 0, size = NARROW] = places[i] ?? [];
        const isAt = selection !== null && isPicked(selection, row, at);
        return (
          <Cell
            key={column.key}
            {...{ list, cells, column, row, at }}
            left={LEFT + start}
            width={size}
            isAt={isAt}
            isCursor={isAt && selection.to[0] === row && selection.to[1] === at}
          />
        );
      })}
    </div>
  );
});

type CellProps = {
  list: ListLine;
  cells: CellColumns;
  column: Column;
  row: number;
  at: number;
  left: number;
  width: number;
  isAt: boolean;
  isCursor: boolean;
};

/** Drawn again only when something about it has changed, so that going sideways draws what comes into sight. */
const Cell = memo(function Cell({ list, cells, column, row, at, left, width, isAt, isCursor }: CellProps) {
  const { icon, said, share } = cellState(cells, column.campaigns);
  return (
    <div
      role="gridcell"
      id={`cell-${row}-${at}`}
      data-row={row}
      data-column={at}
      aria-selected={isAt}
      aria-colindex={at + 4}
      aria-label={`${list.name} on ${column.label}: ${said}${share ? `, ${share}` : ''}`}
      title={`${column.label}: ${said}`}
      className={`absolute flex h-full cursor-pointer items-center justify-center gap-0.5 text-key [contain:strict] ${isAt ? 'bg-straw/60' : ''} ${isCursor ? 'outline-2 -outline-offset-2 outline-pine' : ''}`}
      style={{ left, width }}
    >
      <StateIcon kind={icon} className={icon === 'open' ? 'opacity-45' : ''} />
      {share && icon !== 'open' && share}
      {cells.wanted[column.campaigns[0]!] === 1 && (
        <span className="absolute right-0 bottom-0 text-tiny text-pine" title="wanted by a rule">
          +
        </span>
      )}
    </div>
  );
});
