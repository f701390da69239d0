'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, type KeyboardEvent, type MouseEvent } from 'react';
import type { Sort, TermLine } from '@/contracts/sift';
import { useAccount } from '@/screens/frame/account-context';
import type { SiftUrl } from './sift-url';
import { COLUMNS, TermRow } from './term-row';
import type { Choice } from './use-choice';
import type { useLines } from './use-lines';

const ROW = 30;
const SCREENFUL = 18;

type Props = {
  lines: ReturnType<typeof useLines>;
  total: number;
  cursor: number;
  choice: Choice;
  url: SiftUrl;
  onCursor: (index: number) => void;
  onVisible: (from: number, to: number) => void;
  onSort: (sort: Sort, direction: 'asc' | 'desc') => void;
};

/** Search terms, a row each. All is done by keys while the table has the focus. */
export function TermsTable({ lines, total, cursor, choice, url, onCursor, onVisible, onSort }: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
    scrollPaddingStart: ROW, // the header stays in sight
  });
  const items = rows.getVirtualItems();
  const [from, to] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];
  useEffect(() => onVisible(from, to), [from, to, onVisible]);

  const move = (to: number) => {
    const next = Math.max(0, Math.min(total - 1, to));
    onCursor(next);
    rows.scrollToIndex(next);
  };

  // One listener for all rows, so that a row is drawn again only when something about it has changed.
  function onClick({ target }: MouseEvent) {
    if (!(target instanceof Element)) return;
    const index = Number(target.closest<HTMLElement>('[data-index]')?.dataset.index);
    const word = target.closest<HTMLElement>('[data-word]')?.dataset.word;
    if (Number.isNaN(index)) return;
    if (index !== cursor) onCursor(index);
    else if (word !== undefined) choice.toggle(Number(word));
    scroller.current?.focus();
  }

  return (
    <div
      ref={scroller}
      id="terms"
      role="grid"
      tabIndex={0}
      aria-label="Search terms"
      aria-rowcount={total + 1}
      aria-activedescendant={total > 0 ? `term-${cursor}` : undefined}
      aria-describedby="terms-keys"
      className="group/grid min-h-0 flex-1 overflow-y-auto text-[13px] focus-visible:outline-none"
      onKeyDown={(event) => onKey(event, { cursor, choice, move })}
    >
      <Header url={url} onSort={onSort} />
      {total === 0 && lines.first && <Empty view={url.view} />}
      <div
        role="rowgroup"
        className={`relative ${lines.isStale ? 'opacity-60' : ''}`}
        style={{ height: rows.getTotalSize() }}
        onClick={onClick}
      >
        {items.map((item) => (
          <TermRow
            key={item.index}
            index={item.index}
            top={item.start}
            line={lines.lineAt(item.index)}
            isInHand={item.index === cursor}
            positions={item.index === cursor ? choice.chosen.positions : NONE}
            wouldGo={item.index !== cursor && wouldGo(choice, lines.lineAt(item.index))}
          />
        ))}
      </div>
      <p id="terms-keys" className="sr-only">
        Arrows move, 1 to 9 choose words, m turns the match type, p the place, Enter puts it in the tray, w
        stops the whole term, o keeps it open, v stops the variants that are offered, f goes to the filters.
      </p>
    </div>
  );
}

const NONE: readonly number[] = [];

/** Whether the negative in hand would stop a row as well. */
function wouldGo({ gate }: Choice, line: TermLine | undefined): boolean {
  return gate !== null && line !== undefined && line.words.length > 0 && gate.isStopped(line.words.join(' '));
}

type KeyActions = { cursor: number; choice: Choice; move: (to: number) => void };

function onKey(event: KeyboardEvent, { cursor, choice, move }: KeyActions) {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target !== event.currentTarget) return;
  const act: Record<string, () => void> = {
    ArrowDown: () => move(cursor + 1),
    ArrowUp: () => move(cursor - 1),
    PageDown: () => move(cursor + SCREENFUL),
    PageUp: () => move(cursor - SCREENFUL),
    Home: () => move(0),
    End: () => move(Number.MAX_SAFE_INTEGER),
    m: choice.turnMatch,
    p: choice.turnPlace,
    Enter: () => void choice.put(),
    w: () => void choice.stopWhole(),
    o: () => void choice.keep(),
    v: () => void choice.takeVariants(choice.variants?.offers ?? []),
    f: () => document.getElementById('first-filter')?.focus(),
  };
  const action = /^[1-9]$/.test(event.key) ? () => choice.toggle(Number(event.key) - 1) : act[event.key];
  if (!action) return;
  event.preventDefault();
  action();
}

/** What choosing a header sorts by, in turn. The cost is first sorted by what brought no return. */
function nextSort(name: Sort, url: SiftUrl): [Sort, 'asc' | 'desc'] {
  if (name === 'cost' && url.sort === 'without') return ['cost', 'desc'];
  if (name === 'cost' && url.sort === 'cost')
    return url.direction === 'desc' ? ['cost', 'asc'] : ['without', 'desc'];
  if (name === 'cost') return ['without', 'desc'];
  if (url.sort !== name) return [name, name === 'term' ? 'asc' : 'desc'];
  return [name, url.direction === 'desc' ? 'asc' : 'desc'];
}

function Header({ url, onSort }: Pick<Props, 'url' | 'onSort'>) {
  const { summary } = useAccount();
  const columns: { sort: Sort; name: string }[] = [
    { sort: 'term', name: 'search term' },
    { sort: 'clicks', name: 'clicks' },
    { sort: 'cost', name: url.sort === 'without' ? 'no return' : 'cost' },
    { sort: 'conversions', name: 'conv.' },
    { sort: 'target', name: summary.steersBy === 'CPA' ? 'CPA' : 'ACoS' },
  ];
  const head = ({ sort, name }: (typeof columns)[number]) => {
    const sorted = url.sort === sort || (sort === 'cost' && url.sort === 'without');
    return (
      <div
        key={sort}
        role="columnheader"
        aria-sort={sorted ? (url.direction === 'asc' ? 'ascending' : 'descending') : undefined}
        className={`whitespace-nowrap ${sort === 'term' ? '' : 'text-right'}`}
      >
        <button
          type="button"
          className={`${sorted ? 'font-semibold text-ink' : ''} hover:text-ink`}
          onClick={() => onSort(...nextSort(sort, url))}
        >
          {name}
          {sorted && (url.direction === 'asc' ? ' ↑' : ' ↓')}
        </button>
      </div>
    );
  };
  const [term, ...figures] = columns;
  return (
    <div role="rowgroup" className="sticky top-0 z-10 bg-sheet">
      <div
        role="row"
        aria-rowindex={1}
        className={`${COLUMNS} h-[28px] items-center border-b border-line text-[12px] text-soft`}
      >
        {head(term!)}
        <div role="columnheader">served by</div>
        {figures.slice(0, 3).map(head)}
        <div role="columnheader" title="How sure the figures are that the term misses the target">
          sure
        </div>
        {figures.slice(3).map(head)}
      </div>
    </div>
  );
}

const EMPTY: Record<SiftUrl['view'], string> = {
  remaining: 'No term is left under these filters. Loosen them, or bring a report in Intake.',
  stopped: 'The tray stops none of these terms yet.',
  kept: 'Nothing is kept yet. The key o keeps a term open, and nothing may stop it then.',
  already: 'No negative in force stops any of these terms.',
};

function Empty({ view }: { view: SiftUrl['view'] }) {
  return (
    <div role="rowgroup">
      <div role="row">
        <div role="gridcell" className="p-4 text-soft">
          {EMPTY[view]}
        </div>
      </div>
    </div>
  );
}
