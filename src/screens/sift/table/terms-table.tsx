'use client';

import Link from 'next/link';
import { useCallback, useState } from 'react';
import type { AccountSummary } from '@/contracts/common';
import type { Sort, TermLine } from '@/contracts/sift';
import { shiftDay, counted, type Window } from '@/core';
import { useAccount } from '@/screens/frame/account-context';
import { useSingleKeys } from '@/screens/frame/keys/keys';
import { formatDays } from '@/ui/format';
import { DataTable } from '@/ui/table/data-table';
import { useLayout } from '@/ui/table/use-layout';
import type { Choice } from '../hand/choice/use-choice';
import type { SiftUrl } from '../sift-url';
import { columnOfSort, nextSort, useTermColumns } from './columns';
import { countMarks, isMarked, type Marks } from './marks';
import { onTermKey, type KeyActions } from './term-keys';
import { pageOf, useLines } from './use-lines';
import { useTermFiles } from './use-term-files';

/** Rows beyond those drawn that are fetched. */
const AHEAD = 60;
const NO_ROWS: TermLine[] = [];

type Props = {
  /** filters and view; another one begins at its first row */
  view: string;
  total: number;
  cursor: number;
  choice: Choice;
  marks: Marks;
  url: SiftUrl;
  /** other days, whose figures stand beside */
  beside: Window | null;
  actions: Pick<KeyActions, 'nextUnseen' | 'toggleKeywords' | 'putBatch'>;
  onCursor: (index: number) => void;
  /** one row: its mark is turned; several are marked */
  onMark: (ids: readonly number[]) => void;
  onMarkAll: () => void;
  onUnmarkAll: () => void;
  onSort: (sort: Sort, direction: 'asc' | 'desc') => void;
};

/** Search terms, a row each. All is done by keys while the table has the focus. */
export function TermsTable(props: Props) {
  const { view, total, cursor, choice, marks, url, onCursor, onMark } = props;
  const [single] = useSingleKeys();
  const columns = useTermColumns(url.sort, props.beside);
  const layout = useLayout('terms', columns, NO_ROWS, null);
  const [drawn, setDrawn] = useState({ from: 0, to: 0 });
  const onDrawn = useCallback((from: number, to: number) => setDrawn({ from, to }), []);
  // The pages around are fetched before they come into sight.
  const lines = useLines(
    url,
    props.beside,
    { from: pageOf(Math.max(0, drawn.from - AHEAD)), to: pageOf(drawn.to + AHEAD) },
    total,
  );
  const files = useTermFiles(url, props.beside, total, layout.columns);
  const marked = countMarks(marks, total);
  const isWhole = marked > 0 && marked === total;
  return (
    <DataTable
      id="terms"
      rowId="term-"
      label="Search terms"
      layout={layout}
      count={total}
      rowAt={lines.lineAt}
      cursor={cursor}
      onCursor={onCursor}
      sort={{ by: columnOfSort(url.sort), isDown: url.direction === 'desc' }}
      onSort={(_, column) => props.onSort(...nextSort(column.id, url))}
      marks={{
        has: ({ id }) => isMarked(marks, id),
        all: isWhole || (marked > 0 && 'mixed'),
        turn: (indexes) => onMark(indexes.flatMap((i) => lines.lineAt(i)?.id ?? [])),
        turnAll: isWhole ? props.onUnmarkAll : props.onMarkAll,
        markAll: props.onMarkAll,
        unmarkAll: props.onUnmarkAll,
      }}
      lookOf={(line, index) => ({
        positions: index === cursor ? choice.chosen.positions : NONE,
        isWaiting: line !== undefined && choice.waiting.has(line.id),
        wouldGo: index !== cursor && wouldGo(choice, line),
        refused: index === cursor ? choice.refused : null,
      })}
      isTinted={(line, index) => index !== cursor && wouldGo(choice, line)}
      onKey={(event) => onTermKey(event, { ...props.actions, choice }, single)}
      onPress={(target, index) => {
        const word = target.closest<HTMLElement>('[data-word]')?.dataset.word;
        if (word === undefined || index !== cursor) return false;
        choice.toggle(Number(word));
        return true;
      }}
      onDrawn={onDrawn}
      far={{
        save: (kind) => void files.save(kind),
        copy: () => files.copy(marks, marked, lines.lineAt(cursor)),
      }}
      isStale={lines.isStale}
      view={view}
      keysHelp={KEYS_HELP}
      empty={lines.first && <Empty url={url} />}
    />
  );
}

const KEYS_HELP =
  'Arrows move, above the first row they reach the heads; 1 to 9 choose words, m turns the match type, p the place, Enter puts it in the tray, w stops the whole term, o keeps it open, l sets it aside, Space marks it, Ctrl C copies it, n goes to the next that nobody looked at, f to the filters. The question mark shows all keys.';

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
    <>
      <p>{done ? 'Everything here was looked at in this pass.' : EMPTY[view]}</p>
      {late && (
        <p className="mt-1">
          Rows of {formatDays(late)} are loaded but not shown yet: their conversions are still coming in (lag
          of {counted(summary.lagDays, 'day')}).{' '}
          <Link className="text-pine underline" href={`/${summary.slug}/account`}>
            Set the lag on the Account screen
          </Link>{' '}
          to see them.
        </p>
      )}
    </>
  );
}

/** The newest days of data, which no window reaches yet (rules 7.4). */
function daysWithinLag({ window, dataDays }: AccountSummary): { from: string; to: string } | null {
  if (!window || !dataDays || window.to >= dataDays.to) return null;
  return { from: shiftDay(window.to, 1), to: dataDays.to };
}
