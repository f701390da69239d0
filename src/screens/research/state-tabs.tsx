'use client';

import type { ReactNode } from 'react';
import { IDEA_STATES, type IdeaState, type RemaindersPage } from '@/contracts/research';
import { formatCount } from '@/ui/format';
import { TabbedView } from '@/ui/tabs';

const NAMES: Record<IdeaState, string> = {
  open: 'Open',
  stopped: 'In the tray',
  kept: 'Kept',
  dropped: 'Dropped',
  'stopped already': 'Already stopped',
};

type Props = {
  state: IdeaState;
  counts: RemaindersPage['counts'] | undefined;
  onChange: (state: IdeaState) => void;
  children: ReactNode;
};

/** The piles that ideas lie on; counts follow the tray. */
export function StateTabs({ state, counts, onChange, children }: Props) {
  return (
    <TabbedView
      label="Show"
      className="px-3"
      tabs={IDEA_STATES.map((value) => ({
        ...{ value, name: NAMES[value], count: counts ? formatCount(counts[value] ?? 0) : '' },
      }))}
      value={state}
      onChange={onChange}
    >
      {children}
    </TabbedView>
  );
}
