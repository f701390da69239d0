'use client';

import { useState } from 'react';
import type { ConflictLine, ConflictsShown, ConflictsView as View } from '@/contracts/untangle';
import { DataTable } from '@/ui/table/data-table';
import { inMemory, useLayout } from '@/ui/table/use-layout';
import { useConflictColumns } from './conflict-columns';
import { ConflictInHand } from './conflict-in-hand';
import { Mends } from './mends';
import { useConflict } from './use-conflict';

const EMPTY: Record<ConflictsShown, string> = {
  open: 'No negative works against a live keyword or a protected term.',
  meant: 'No negative keeps its queries for a narrower keyword elsewhere.',
  left: 'Nothing was left. What you leave comes back when something about it changes.',
};

const NO_LINES: ConflictLine[] = [];

type Props = { name: string; shown: ConflictsShown; view: View | undefined; isStale: boolean };

/** A pile of conflicts; below it the mends of the one in hand. */
export function ConflictsView({ name, shown, view, isStale }: Props) {
  const [cursor, setCursor] = useState(0);
  const [sort, setSort] = useState({ by: 'conversions', isDown: true });
  const lines = view?.lines ?? NO_LINES;
  const columns = useConflictColumns(view?.days);
  const layout = useLayout('conflicts', columns, lines, sort);
  const table = inMemory(layout);
  const at = Math.min(cursor, Math.max(0, lines.length - 1));
  const conflict = useConflict(table.rowAt(at));
  return (
    <>
      <DataTable
        id="conflicts"
        label={name}
        {...table}
        cursor={at}
        onCursor={setCursor}
        sort={sort}
        onSort={setSort}
        onKey={conflict.onKey}
        isStale={isStale}
        view={shown}
        saveAs="conflicts"
        keysHelp="Arrows move; digits choose a mend, Enter puts it in the tray, l leaves the conflict or takes it up again."
        empty={view && <p>{EMPTY[shown]}</p>}
      />
      <Mends conflict={conflict} />
      <ConflictInHand conflict={conflict} days={view?.days} />
    </>
  );
}
