import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import { flushSync } from 'react-dom';
import { createRoot } from 'react-dom/client';

const ROW = 30;

type Size = {
  rows: number;
  columns: number;
  /** px of a column that scrolls; without it the columns share the width, and only rows scroll */
  columnPx?: number;
};

/** As many rows and cells as a table of ours, made with the same packages, nothing in them but plain text. */
function Bare({ rows, columns, columnPx }: Size) {
  const scroller = useRef<HTMLDivElement>(null);
  const getScrollElement = () => scroller.current;
  const down = useVirtualizer({ count: rows, getScrollElement, estimateSize: () => ROW, overscan: 5 });
  const across = useVirtualizer({
    ...{ count: columns, getScrollElement, estimateSize: () => columnPx ?? 1, overscan: 5, horizontal: true },
  });
  const cells = columnPx
    ? across.getVirtualItems().map(({ index, start }) => ({ index, start }))
    : Array.from({ length: columns }, (_, index) => ({ index, start: 0 }));
  return (
    <div
      ref={scroller}
      id="bare-list"
      style={{ position: 'fixed', inset: 0, overflow: 'auto', background: '#fff', zIndex: 99, fontSize: 13 }}
    >
      <div
        style={{
          position: 'relative',
          height: down.getTotalSize(),
          width: columnPx && across.getTotalSize(),
        }}
      >
        {down.getVirtualItems().map(({ index, start }) => (
          <div
            key={index}
            style={{
              ...{ position: 'absolute', top: start, height: ROW, left: 0, right: 0 },
              ...(!columnPx && { display: 'grid', gridTemplateColumns: `repeat(${columns}, 1fr)` }),
            }}
          >
            {cells.map((cell) => (
              <span
                key={cell.index}
                style={columnPx ? { position: 'absolute', left: cell.start } : undefined}
              >
                {cell.index === 1 && !columnPx ? `row ${index} of a bare list` : (index * cell.index) % 100}
              </span>
            ))}
          </div>
        ))}
      </div>
    </div>
  );
}

/** Puts a bare virtual list over the page; answers with what takes it away. */
export function showBareList(size: Size): () => void {
  const box = document.createElement('div');
  document.body.append(box);
  const root = createRoot(box);
  flushSync(() => root.render(<Bare {...size} />));
  return () => {
    root.unmount();
    box.remove();
  };
}

Object.assign(globalThis, { showBareList });
