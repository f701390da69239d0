'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { counted } from '@/core';
import type { SmallerLine, SmallerSetView, SmallerView as View } from '@/contracts/smaller';
import { useRoutes } from '@/screens/frame/data/routes';
import { InHand } from '@/screens/frame/in-hand';
import { useTrayActions } from '@/screens/tray/use-tray';
import { Button, Key } from '@/ui/button';
import { formatCount } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import { ErrorText } from '@/ui/said';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { inMemory, useLayout, type Sort } from '@/ui/table/use-layout';

const NO_LINES: SmallerLine[] = [];

/** Places whose negatives could be fewer; below the table what would go and come in the one in hand. */
export function SmallerView({ view, isStale }: { view: View | undefined; isStale: boolean }) {
  const lines = view?.lines ?? NO_LINES;
  const [cursor, onCursor] = useState(0);
  const [sort, onSort] = useState<Sort>({ by: 'less', isDown: true });
  const table = inMemory(useLayout('smaller', COLUMNS, lines, sort));
  const at = Math.min(cursor, Math.max(0, lines.length - 1));
  const line = table.rowAt(at);
  const { set, error } = useSmallerSet(line);
  const { draft } = useTrayActions();

  async function put() {
    if (!line || !set) return;
    const why = `smaller set: ${formatCount(line.after)} negatives stop the same ${formatCount(line.terms)} terms as ${formatCount(line.before)}`;
    await draft(
      set.changes.map((change) => ({ change, why })),
      {
        said: `${formatCount(line.after)} negatives in the place of ${formatCount(line.before)} in ${line.placeName}`,
      },
    );
  }

  return (
    <>
      {view && view.fixed > 0 && (
        <p className="border-b border-line px-3 py-1 text-table text-soft">
          {counted(view.fixed, 'negative')} stood before the data begin: what they stop is not reported, so
          they stay as they are.
        </p>
      )}
      <DataTable
        label="Smaller sets"
        {...{ id: 'smaller', ...table, cursor: at, onCursor, sort, onSort, isStale }}
        onKey={(event) => {
          if (event.key !== 'Enter') return false;
          void put();
          return true;
        }}
        saveAs="smaller sets"
        keysHelp="Arrows move; Enter puts what comes and what goes in the tray."
        empty={view && <p>Nowhere would fewer negatives do.</p>}
      />
      {line && set && <WhatChanges set={set} />}
      <InHand
        title={line?.placeName}
        actions={
          line && (
            <Button tone="main" disabled={!set} onClick={() => void put()}>
              Put in the tray <Key>↵</Key>
            </Button>
          )
        }
      >
        <ErrorText error={error} />
        {line ? (
          <Told line={line} set={set} />
        ) : (
          <p className="mt-1 text-table text-soft">Nothing is in hand.</p>
        )}
      </InHand>
    </>
  );
}

function useSmallerSet(line: SmallerLine | undefined) {
  const { query } = useRoutes();
  const place = line?.place;
  const { data, error } = useQuery({
    ...query('GET untangle/smaller/set', {
      query: { place: place?.kind ?? 'account', id: place?.id ?? '0' },
    }),
    enabled: line !== undefined,
  });
  return { set: data?.key === line?.key ? data : undefined, error };
}

/** What goes and what comes, side by side. */
function WhatChanges({ set: { removed, added } }: { set: SmallerSetView }) {
  const sides = [
    { all: 'go', one: 'goes', of: removed },
    { all: 'come', one: 'comes', of: added },
  ];
  return (
    <section
      aria-label="What changes"
      className="grid max-h-[40%] shrink-0 grid-cols-2 gap-4 overflow-y-auto border-t border-line px-4 py-2 text-table"
    >
      {sides.map(({ all, one, of: { count, first } }) => (
        <div key={all}>
          <h2 className="font-semibold">{`${counted(count, 'negative')} ${count === 1 ? one : all}`}</h2>
          <ul>
            {first.map(({ text, match }) => (
              <li key={`${match} ${text}`} className="border-t border-line py-0.5">
                {text} <MatchChip match={match} />
              </li>
            ))}
            {count > first.length && (
              <li className="border-t border-line py-0.5 text-soft">
                and {formatCount(count - first.length)} more
              </li>
            )}
          </ul>
        </div>
      ))}
    </section>
  );
}

/** What is the same afterwards, and which queries to come are not treated as before. */
function Told({ line, set }: { line: SmallerLine; set: SmallerSetView | undefined }) {
  return (
    <>
      <p className="mt-1 text-table">
        <b>{formatCount(line.before)}</b> negatives stop {counted(line.terms, 'term')} that{' '}
        {line.terms === 1 ? 'was' : 'were'} served there, in all days that are kept.{' '}
        <b>{formatCount(line.after)}</b> stop the same, and nothing that must stay open.
      </p>
      {line.idle > 0 && (
        <p className="mt-1 text-table text-soft">
          {formatCount(line.idle)} of those that go {line.idle === 1 ? 'stops' : 'stop'} nothing that was
          served before them.
        </p>
      )}
      {set && <Differs set={set} />}
    </>
  );
}

function Differs({ set: { opened, noMore, fromThenOn } }: { set: SmallerSetView }) {
  const texts = [
    { says: 'Opens what must stay open', of: opened },
    { says: 'Queries to come that would be stopped no more, such as', of: noMore },
    { says: 'Queries to come that would be stopped from then on, such as', of: fromThenOn },
  ].filter(({ of }) => of.count > 0);
  if (texts.length === 0)
    return <p className="mt-1 text-table text-soft">No query made of their words is treated otherwise.</p>;
  return texts.map(({ says, of: { count, first } }) => (
    <p key={says} className="mt-1 text-table">
      {says}: {first.map((text) => `“${text}”`).join(', ')}
      {count > first.length ? ` and ${formatCount(count - first.length)} more.` : '.'}
    </p>
  ));
}

const COLUMNS: readonly Column<SmallerLine>[] = [
  {
    ...{ id: 'place', name: 'where', px: 200, share: 2, isText: true, isSortable: true },
    value: ({ placeName }) => placeName,
    cell: ({ placeName }) => <b>{placeName}</b>,
  },
  {
    ...{ id: 'before', name: 'now', fullName: 'negatives now', px: 64, isSortable: true },
    value: ({ before }) => before,
    cell: ({ before }) => formatCount(before),
  },
  {
    ...{ id: 'after', name: 'would do', fullName: 'negatives that would do', px: 76, isSortable: true },
    value: ({ after }) => after,
    cell: ({ after }) => formatCount(after),
  },
  {
    ...{ id: 'less', name: 'fewer by', px: 72, isSortable: true },
    value: ({ before, after }) => before - after,
    cell: ({ before, after }) => formatCount(before - after),
  },
  {
    ...{ id: 'terms', name: 'stop', fullName: 'terms that they stop', px: 64, isSortable: true },
    value: ({ terms }) => terms,
    cell: ({ terms }) => formatCount(terms),
  },
  {
    ...{ id: 'idle', name: 'idle', px: 56, isSortable: true },
    explains: 'Of those that go: they stop nothing that was served before them.',
    value: ({ idle }) => idle,
    cell: ({ idle }) => formatCount(idle),
  },
];
