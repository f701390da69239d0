'use client';

import type { SiftView } from '@/contracts/sift';
import { formatCount } from '@/ui/format';

const NAMES: Record<SiftView, string> = {
  remaining: 'Remaining',
  stopped: 'Stopped by the tray',
  kept: 'Kept',
  already: 'Already stopped',
};

type Props = {
  view: SiftView;
  counts: Record<SiftView, number> | undefined;
  onChange: (view: SiftView) => void;
};

/** The piles that terms lie on; counts follow the tray. */
export function ViewTabs({ view, counts, onChange }: Props) {
  return (
    <div role="group" aria-label="Show" className="flex gap-5 border-b border-line px-3 text-[13px]">
      {(Object.keys(NAMES) as SiftView[]).map((name) => (
        <button
          key={name}
          type="button"
          aria-pressed={view === name}
          onClick={() => onChange(name)}
          className={`-mb-px border-b-2 py-2 ${view === name ? 'border-pine font-semibold' : 'border-transparent text-soft hover:text-ink'}`}
        >
          {NAMES[name]} <span data-testid={`count-${name}`}>{counts ? formatCount(counts[name]) : ''}</span>
        </button>
      ))}
    </div>
  );
}
