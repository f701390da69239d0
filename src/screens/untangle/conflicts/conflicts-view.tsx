'use client';

import { useMemo } from 'react';
import type { ConflictLine, ConflictsShown, ConflictsView as View } from '@/contracts/untangle';
import { optionsOf, Select } from '@/ui/select';
import { DataTable } from '@/ui/table/data-table';
import { useKnots } from '../use-knots';
import { useConflictColumns } from './conflict-columns';
import { ConflictInHand } from './conflict-in-hand';
import { Mends } from './mends';
import { PileChoice } from '../leaving/pile-choice';
import { UnjudgedButton } from '../unjudged';
import { GROUPED_BY, useUntangleUrl, type GroupedBy } from '../untangle-url';
import { useGroupColumn } from './grouping';
import { useConflict } from './use-conflict';

const EMPTY: Record<ConflictsShown, string> = {
  open: 'No negative works against a live keyword or a protected term.',
  meant: 'No negative keeps its queries for a narrower keyword elsewhere.',
  left: 'Nothing was left. What you leave comes back when something about it changes.',
};

const GROUPS = optionsOf<GroupedBy>(GROUPED_BY);
const NO_LINES: ConflictLine[] = [];
const keyOf = ({ key }: ConflictLine) => key;

type Props = { view: View | undefined; isStale: boolean };

/** A pile of conflicts; below it the mends of the one in hand. */
export function ConflictsView({ view, isStale }: Props) {
  const [{ pile, grouped }, setUrl] = useUntangleUrl();
  const lines = view?.lines ?? NO_LINES;
  const own = useConflictColumns(view?.days);
  const group = useGroupColumn(lines, grouped);
  const columns = useMemo(() => (group ? [group, ...own] : own), [group, own]);
  const knots = useKnots('conflicts', columns, lines, {
    ...{ kind: 'conflict', keyOf },
    by: group ? 'group' : 'conversions',
    isNewFirst: !group,
  });
  const conflict = useConflict(knots.line);
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-3 py-1 text-table">
        <PileChoice counts={view && pilesOf(view)} />
        <span className="text-soft">together by</span>
        <Select
          label="Together by"
          look="word"
          options={GROUPS}
          value={grouped}
          onChange={(next) => void setUrl({ grouped: next })}
        />
        {view && <UnjudgedButton unjudged={view.unjudged} />}
      </div>
      <DataTable
        label="Conflicts"
        {...knots.table}
        onKey={conflict.onKey}
        isStale={isStale}
        view={pile}
        saveAs="conflicts"
        keysHelp="Arrows move; digits choose a mend, Enter puts it in the tray, l leaves the conflict or takes it up again."
        empty={view && <p>{EMPTY[pile]}</p>}
      />
      <Mends conflict={conflict} />
      <ConflictInHand conflict={conflict} days={view?.days} />
    </>
  );
}

const pilesOf = ({ counts: { open, meant, left } }: View) => ({ open, meant, left });
