'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { counted } from '@/core';
import type { ConflictLine, ConflictsShown, ConflictsView } from '@/contracts/untangle';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { formatConversions, formatCount } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import { DataTable } from '@/ui/table/data-table';
import { inMemory, useLayout } from '@/ui/table/use-layout';
import { TabbedView } from '@/ui/tabs';
import { useConflictColumns } from './conflict-columns';
import { ConflictInHand } from './conflict-in-hand';
import { Mends } from './mends';
import { useShown } from './untangle-url';
import { useConflict } from './use-conflict';

const NAMES: Record<ConflictsShown, string> = { open: 'Conflicts', meant: 'Meant so', left: 'Left' };
const EMPTY: Record<ConflictsShown, string> = {
  open: 'No negative works against a live keyword or a protected term.',
  meant: 'No negative keeps its queries for a narrower keyword elsewhere.',
  left: 'Nothing was left. What you leave comes back when something about it changes.',
};

const NO_LINES: ConflictLine[] = [];

/** The knots of an account: what each costs, the ways out with what each would open, and a decision in minutes. */
export function UntangleScreen() {
  const [shown, setShown] = useShown();
  const [cursor, setCursor] = useState(0);
  const [sort, setSort] = useState({ by: 'conversions', isDown: true });
  const { query } = useRoutes();
  const [days] = useDays();
  const {
    data: view,
    error,
    isPlaceholderData,
  } = useQuery({
    ...query('GET untangle', { query: { shown, ...inDays(days) } }),
    placeholderData: keepPreviousData,
  });
  const lines = view?.lines ?? NO_LINES;
  const columns = useConflictColumns(view?.days);
  const layout = useLayout('conflicts', columns, lines, sort);
  const table = inMemory(layout);
  const at = Math.min(cursor, Math.max(0, lines.length - 1));
  const conflict = useConflict(table.rowAt(at));
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line bg-paper px-4 py-2">
        <h1 className="font-title text-title font-bold">Untangle</h1>
        {view && <HealthLine view={view} />}
      </header>
      <TabbedView
        label="Show"
        className="px-3"
        tabs={(['open', 'meant', 'left'] as const).map((value) => ({
          ...{ value, name: NAMES[value] },
          count: view ? formatCount(view.counts[value]) : '',
        }))}
        value={shown}
        onChange={setShown}
      >
        {error ? (
          <ErrorText error={error} isWhole />
        ) : (
          <DataTable
            id="conflicts"
            label={NAMES[shown]}
            {...table}
            cursor={at}
            onCursor={setCursor}
            sort={sort}
            onSort={setSort}
            onKey={conflict.onKey}
            isStale={isPlaceholderData}
            view={shown}
            saveAs="conflicts"
            keysHelp="Arrows move; digits choose a mend, Enter puts it in the tray, l leaves the conflict or takes it up again."
            empty={view && <p>{EMPTY[shown]}</p>}
          />
        )}
        <Mends conflict={conflict} />
      </TabbedView>
      <ConflictInHand conflict={conflict} days={view?.days} />
    </div>
  );
}

/** How it stands, in a sentence. */
function HealthLine({ view: { counts, lost, days } }: { view: ConflictsView }) {
  return (
    <p className="text-table text-soft">
      {counted(counts.open, 'conflict')}
      {lost.conversions > 0 && (
        <>
          {' '}
          cost about <b className="text-rust">{formatConversions(lost.conversions)} conversions</b> in {days}{' '}
          days
        </>
      )}
      {lost.unknown > 0 && `; of ${formatCount(lost.unknown)} it is not known`}
      {counts.inTray > 0 && `; ${formatCount(counts.inTray)} more are mended by the tray`}.
    </p>
  );
}
