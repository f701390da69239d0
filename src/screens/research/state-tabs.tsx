'use client';

import type { ReactNode } from 'react';
import type { RemaindersPage } from '@/contracts/research';
import { formatCount } from '@/ui/format';
import { TabbedView } from '@/ui/tabs';
import type { Shown } from './research-url';

const SHOWN: readonly Shown[] = [
  'open',
  'groups',
  'candidates',
  'stopped',
  'kept',
  'dropped',
  'stopped already',
];
const NAMES: Record<Shown, string> = {
  open: 'Remainders',
  groups: 'Groups',
  candidates: 'Candidates',
  stopped: 'In the tray',
  kept: 'Kept',
  dropped: 'Dropped',
  'stopped already': 'Already stopped',
};

type Props = {
  shown: Shown;
  /** groups that there are */
  groups: number | undefined;
  candidates: number | undefined;
  counts: RemaindersPage['counts'] | undefined;
  onChange: (shown: Shown) => void;
  children: ReactNode;
};

/** The piles that ideas lie on; counts follow the tray. */
export function StateTabs({ shown, counts, groups, candidates, onChange, children }: Props) {
  const countOf = (value: Shown) => {
    const count = value === 'groups' ? groups : value === 'candidates' ? candidates : counts?.[value];
    return count === undefined ? '' : formatCount(count);
  };
  return (
    <TabbedView
      label="Show"
      className="px-3"
      tabs={SHOWN.map((value) => ({
        ...{ value, name: NAMES[value], count: countOf(value) },
      }))}
      value={shown}
      onChange={onChange}
    >
      {children}
    </TabbedView>
  );
}
