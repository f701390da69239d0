'use client';

import type { PassProgress, SiftView } from '@/contracts/sift';
import { formatCount, formatShare } from '@/ui/format';
import type { Shows } from './sift-url';

const NAMES: Record<SiftView, string> = {
  remaining: 'Remaining',
  stopped: 'Stopped by the tray',
  kept: 'Kept',
  aside: 'Set aside',
  already: 'Already stopped',
};

type Props = {
  view: SiftView;
  counts: Record<SiftView, number> | undefined;
  pass: PassProgress | null | undefined;
  shows: Shows;
  onChange: (view: SiftView) => void;
  onShow: (shows: Shows) => void;
  onKeptList: () => void;
};

/** The piles that terms lie on; counts follow the tray. Beside them, how far the pass has come. */
export function ViewTabs({ view, counts, pass, shows, onChange, onShow, onKeptList }: Props) {
  return (
    <div className="flex flex-wrap items-center gap-x-3 border-b border-line px-3 text-table whitespace-nowrap">
      <div role="group" aria-label="Show" className="contents">
        {(Object.keys(NAMES) as SiftView[]).map((name) => (
          <button
            key={name}
            type="button"
            aria-pressed={view === name}
            onClick={() => onChange(name)}
            className={`-mb-px border-b-2 py-1.5 ${view === name ? 'border-pine font-semibold' : 'border-transparent text-soft hover:text-ink'}`}
          >
            {NAMES[name]} <span data-testid={`count-${name}`}>{counts ? formatCount(counts[name]) : ''}</span>
          </button>
        ))}
      </div>
      {view === 'kept' && (
        <button type="button" className="min-h-6 text-pine hover:underline" onClick={onKeptList}>
          the whole list
        </button>
      )}
      <span className="ml-auto flex items-center gap-2.5">
        {pass && pass.ofTerms > 0 && <Progress pass={pass} />}
        <button
          type="button"
          aria-pressed={shows === 'plot'}
          className="min-h-6 text-pine hover:underline"
          onClick={() => onShow(shows === 'plot' ? 'table' : 'plot')}
        >
          {shows === 'plot' ? 'Table' : 'Plot'}
        </button>
      </span>
    </div>
  );
}

function Progress({ pass: { terms, ofTerms, costMicros, ofCostMicros } }: { pass: PassProgress }) {
  const ofSpend = ofCostMicros > 0 ? costMicros / ofCostMicros : 0;
  const said = `${formatCount(terms)} of ${formatCount(ofTerms)} terms looked at or decided since the last report: ${formatShare(ofSpend)} of the spend. The key n goes to the next.`;
  return (
    <span className="flex items-center gap-1.5 text-small text-soft" title={said} data-testid="pass">
      <span className="sr-only">{said}</span>
      <span aria-hidden>{formatShare(ofSpend)}</span>
      <progress className="w-9" max={1} value={ofSpend} aria-label="Share of the spend looked at" />
    </span>
  );
}
