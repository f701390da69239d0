'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, type KeyboardEvent, type MouseEvent } from 'react';
import type { ListLine } from '@/contracts/lists';
import type { CellColumns } from './cells';
import type { Column, ColumnGroup } from './columns';
import { Heads } from './grid-heads';
import { Row } from './grid-row';
import { FOLDED, HEAD, LEFT, NARROW, ROW, startsOf } from './grid-sizes';
import type { Selection } from './use-selection';

type Props = {
  lists: readonly ListLine[];
  cells: ReadonlyMap<string, CellColumns>;
  columns: readonly Column[];
  groups: readonly ColumnGroup[];
  /** whether a campaign has any list, by index */
  hasList: readonly boolean[];
  selection: Selection;
  onGo: (row: number, column: number, extend: boolean) => void;
  onPick: (selection: Selection) => void;
  /** hangs what is marked, or takes it down */
  onTurn: () => void;
  onFold: (group: string) => void;
};

/** Lists by campaigns, a gate in each cell; only what is in sight is drawn, both ways. */
export function CoverageGrid(props: Props) {
  const { lists, cells, columns, groups, hasList, selection, onGo, onPick } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const [row, column] = selection.to;
  const rows = useVirtualizer({
    count: lists.length + 1, // the last row: campaigns without any list
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 4,
    scrollPaddingStart: HEAD,
    useFlushSync: false,
  });
  const across = useVirtualizer({
    horizontal: true,
    count: columns.length,
    getScrollElement: () => scroller.current,
    estimateSize: (index) => (columns[index]!.isFolded ? FOLDED : NARROW),
    overscan: 6,
    scrollPaddingStart: LEFT,
    scrollPaddingEnd: 40,
    useFlushSync: false,
  });
  useEffect(() => across.measure(), [across, columns]);
  const inSight = across.getVirtualItems();
  const width = LEFT + across.getTotalSize() + 90; // heads lean to the right

  function go(toRow: number, toColumn: number, extend: boolean) {
    const [r, c] = [clamp(toRow, lists.length), clamp(toColumn, columns.length)];
    onGo(r, c, extend);
    rows.scrollToIndex(r);
    across.scrollToIndex(c);
  }

  function onKey(event: KeyboardEvent) {
    const steps: Record<string, [number, number]> = {
      ...{ ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] },
      ...{ PageDown: [15, 0], PageUp: [-15, 0], Home: [0, -columns.length], End: [0, columns.length] },
    };
    const step = steps[event.key];
    if (step) go(row + step[0], column + step[1], event.shiftKey);
    else if (event.key === 'Enter') props.onTurn();
    else if (event.key === ' ' && event.ctrlKey)
      onPick({ from: [0, column], to: [Math.max(0, lists.length - 1), column] });
    else if (event.key === ' ') onPick({ from: [row, 0], to: [row, Math.max(0, columns.length - 1)] });
    else if (event.key === 'Escape') onGo(row, column, false);
    else return;
    event.preventDefault();
  }

  // One listener for all cells, so that they are light enough to scroll by.
  function onClick({ target, shiftKey }: MouseEvent) {
    if (!(target instanceof Element)) return;
    const cell = target.closest<HTMLElement>('[data-row]');
    const head = target.closest<HTMLElement>('[data-column-head]');
    const fold = target.closest<HTMLElement>('[data-fold]');
    if (fold) props.onFold(fold.dataset.fold!);
    else if (head) {
      const at = Number(head.dataset.columnHead);
      onPick({ from: [0, at], to: [Math.max(0, lists.length - 1), at] });
    } else if (cell) {
      const r = Number(cell.dataset.row);
      if (cell.dataset.column === undefined)
        onPick({ from: [r, 0], to: [r, Math.max(0, columns.length - 1)] });
      else onGo(r, Number(cell.dataset.column), shiftKey);
    }
    scroller.current?.focus({ preventScroll: true });
  }

  return (
    <div
      ref={scroller}
      role="grid"
      id="coverage"
      tabIndex={0}
      aria-label="Where each list hangs"
      aria-rowcount={lists.length + 1}
      aria-colcount={columns.length + 3}
      aria-multiselectable
      aria-describedby="coverage-keys"
      aria-activedescendant={lists.length > 0 ? `cell-${row}-${column}` : undefined}
      className="group/grid min-h-0 flex-1 overflow-auto text-table focus-visible:outline-none"
      onKeyDown={onKey}
      onClick={onClick}
    >
      <div style={{ width, height: HEAD + rows.getTotalSize() }} className="relative min-w-full">
        <Heads {...{ columns, groups, hasList, column }} inSight={inSight} width={width} />
        {rows.getVirtualItems().map(({ index, start }) => {
          const list = lists[index];
          return list ? (
            <Row
              key={list.id}
              list={list}
              cells={cells.get(list.id)!}
              columns={columns}
              row={index}
              top={HEAD + start}
              width={width}
              selection={touches(selection, index) ? selection : null}
              first={inSight[0]?.index ?? 0}
              last={inSight.at(-1)?.index ?? -1}
              startOf={startsOf(inSight)}
            />
          ) : (
            <div
              key="none"
              role="row"
              aria-rowindex={index + 2}
              className="absolute flex h-[32px] min-w-full items-center text-soft"
              style={{ top: HEAD + start, width }}
            >
              <div role="rowheader" className="sticky left-0 z-10 w-[272px] shrink-0 bg-sheet px-4">
                no list at all
              </div>
              {inSight.map((item) => {
                const bare = columns[item.index]!.campaigns.filter((c) => !hasList[c]).length;
                return (
                  <div
                    key={item.key}
                    role="gridcell"
                    className="absolute text-center font-semibold text-rust"
                    style={{ left: LEFT + item.start, width: item.size }}
                  >
                    {bare === 0 ? '' : columns[item.index]!.isFolded ? bare : '×'}
                    {bare > 0 && <span className="sr-only">campaigns here have no list</span>}
                  </div>
                );
              })}
            </div>
          );
        })}
      </div>
      <p id="coverage-keys" className="sr-only">
        Arrows move, with Shift they mark. Space marks the row, Ctrl Space the column. Enter hangs what is
        marked, or takes it down.
      </p>
    </div>
  );
}

const clamp = (at: number, count: number) => Math.max(0, Math.min(count - 1, at));
const touches = ({ from, to }: Selection, row: number) =>
  row >= Math.min(from[0], to[0]) && row <= Math.max(from[0], to[0]);
