'use client';

import Link from 'next/link';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, type MouseEvent } from 'react';
import type { AccountSummary } from '@/contracts/common';
import type { Sort, TermLine } from '@/contracts/sift';
import { shiftDay, counted } from '@/core';
import { useAccount } from '@/screens/frame/account-context';
import { useSingleKeys } from '@/screens/frame/keys/keys';
import { formatDays } from '@/ui/format';
import { useLightRows } from '@/ui/light-rows';
import type { Choice } from '../hand/choice/use-choice';
import type { SiftUrl } from '../sift-url';
import { gridColumns, useExtraColumns } from './columns';
import { TermsHeader } from './header';
import { isMarked, type Marks } from './marks';
import { onTableKey, type KeyActions } from './table-keys';
import { TermRow } from './term-row';
import { pageOf, useLines } from './use-lines';

const ROW = 30;
/** Rows are drawn into the same places again; more than are ever drawn at once. */
const POOL = 160;
/** Rows beyond those drawn that are fetched. */
const AHEAD = 60;

type Props = {
  /** filters and view; another one begins at its first row */
  view: string;
  total: number;
  cursor: number;
  choice: Choice;
  marks: Marks;
  url: SiftUrl;
  actions: Omit<KeyActions, 'move' | 'cursor' | 'choice'>;
  onCursor: (index: number) => void;
  /** one row: its mark is turned; several are marked */
  onMark: (ids: readonly number[]) => void;
  onMarkAll: () => void;
  onSort: (sort: Sort, direction: 'asc' | 'desc') => void;
};

/** Search terms, a row each. All is done by keys while the table has the focus. */
export function TermsTable(props: Props) {
  const { view, total, cursor, choice, marks, url, onCursor, onMark } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const [single] = useSingleKeys();
  const [extras] = useExtraColumns();
  const columns = useMemo(() => gridColumns(extras), [extras]);
  const rows = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 6,
    useFlushSync: false,
    scrollPaddingStart: ROW, // the header stays in sight
  });
  const items = rows.getVirtualItems();
  const [from, to] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];
  const isLight = useLightRows({ isScrolling: rows.isScrolling, from, to }, cursor);
  // The pages around are fetched before they come into sight.
  const lines = useLines(url, { from: pageOf(Math.max(0, from - AHEAD)), to: pageOf(to + AHEAD) }, total);
  // The table stays the same one, so that it keeps the focus and no key is lost.
  useEffect(() => {
    scroller.current?.scrollTo({ top: 0 });
  }, [view]);
  useEffect(() => {
    if (cursor > 0) rows.scrollToIndex(cursor);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only when the cursor was put elsewhere
  }, [cursor]);

  const move = (to: number) => {
    const next = Math.max(0, Math.min(total - 1, to));
    onCursor(next);
    rows.scrollToIndex(next);
  };

  const idsOf = (indexes: readonly number[]) => indexes.flatMap((i) => lines.lineAt(i)?.id ?? []);
  const stretch = (a: number, b: number) =>
    idsOf(Array.from({ length: Math.abs(a - b) + 1 }, (_, i) => Math.min(a, b) + i));

  // One listener for all rows, so that a row is drawn again only when something about it has changed.
  function onClick({ target, shiftKey }: MouseEvent) {
    if (!(target instanceof Element)) return;
    const index = Number(target.closest<HTMLElement>('[data-index]')?.dataset.index);
    const word = target.closest<HTMLElement>('[data-word]')?.dataset.word;
    if (Number.isNaN(index)) return;
    if (target.closest('[data-mark]')) onMark(shiftKey ? stretch(cursor, index) : idsOf([index]));
    else if (index !== cursor) onCursor(index);
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
      aria-multiselectable
      aria-activedescendant={total > 0 ? `term-${cursor}` : undefined}
      aria-describedby="terms-keys"
      className="group/grid @container min-h-0 flex-1 overflow-auto text-[13px] focus-visible:outline-none"
      style={columns}
      onKeyDown={(event) => onTableKey(event, { ...props.actions, cursor, choice, move }, single)}
    >
      <TermsHeader
        url={url}
        extras={extras}
        marked={marks.kind === 'all' ? marks.except.size === 0 || 'mixed' : marks.ids.size > 0 && 'mixed'}
        onMarkAll={props.onMarkAll}
        onSort={props.onSort}
      />
      {total === 0 && lines.first && <Empty url={url} />}
      <div
        role="rowgroup"
        className={`relative min-w-(--least) ${lines.isStale ? 'opacity-60' : ''}`}
        style={{ height: rows.getTotalSize() }}
        onClick={onClick}
      >
        {items.map((item) => {
          const line = lines.lineAt(item.index);
          return (
            <TermRow
              key={item.index % POOL}
              index={item.index}
              top={item.start}
              extras={extras}
              line={line}
              isLight={isLight(item.index)}
              isInHand={item.index === cursor}
              isMarked={line !== undefined && isMarked(marks, line.id)}
              isWaiting={line !== undefined && choice.waiting.has(line.id)}
              positions={item.index === cursor ? choice.chosen.positions : NONE}
              wouldGo={item.index !== cursor && wouldGo(choice, line)}
            />
          );
        })}
      </div>
      <p id="terms-keys" className="sr-only">
        Arrows move, 1 to 9 choose words, m turns the match type, p the place, Enter puts it in the tray, w
        stops the whole term, o keeps it open, l sets it aside, Space marks it, n goes to the next that nobody
        looked at, f to the filters. The question mark shows all keys.
      </p>
    </div>
  );
}

const NONE: readonly number[] = [];

/** Whether the negative in hand would stop a row as well. */
function wouldGo({ gate }: Choice, line: TermLine | undefined): boolean {
  return gate !== null && line !== undefined && line.words.length > 0 && gate.isStopped(line.words.join(' '));
}

const EMPTY: Record<SiftUrl['view'], string> = {
  remaining: 'No term is left under these filters. Loosen them, or bring a report in Intake.',
  stopped: 'The tray stops none of these terms yet.',
  kept: 'Nothing is kept yet. The key o keeps a term open, and nothing may stop it then.',
  aside: 'Nothing is set aside. The key l hides a term until it has more clicks.',
  already: 'No negative in force stops any of these terms.',
};

function Empty({ url: { view, trait } }: { url: SiftUrl }) {
  const { summary } = useAccount();
  const done = view === 'remaining' && (trait === 'unseen' || trait === 'new');
  const late = view === 'remaining' ? daysWithinLag(summary) : null;
  return (
    <div role="rowgroup">
      <div role="row">
        <div role="gridcell" className="p-4 text-soft">
          <p>{done ? 'Everything here was looked at in this pass.' : EMPTY[view]}</p>
          {late && (
            <p className="mt-1">
              Rows of {formatDays(late)} are loaded but not shown yet: their conversions are still coming in
              (lag of {counted(summary.lagDays, 'day')}).{' '}
              <Link className="text-pine underline" href={`/${summary.slug}/account`}>
                Set the lag on the Account screen
              </Link>{' '}
              to see them.
            </p>
          )}
        </div>
      </div>
    </div>
  );
}

/** The newest days of data, which no window reaches yet (rules 7.4). */
function daysWithinLag({ window, dataDays }: AccountSummary): { from: string; to: string } | null {
  if (!window || !dataDays || window.to >= dataDays.to) return null;
  return { from: shiftDay(window.to, 1), to: dataDays.to };
}
