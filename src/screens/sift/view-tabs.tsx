'use client';

import type { ReactNode } from 'react';
import { SIFT_VIEWS, type PassProgress, type SiftView } from '@/contracts/sift';
import { Explain } from '@/ui/explain';
import { TabbedView } from '@/ui/tabs';
import { formatCount, formatShare } from '@/ui/format';
import type { Shows } from './sift-url';

const NAMES: Record<SiftView, string> = {
  remaining: 'Remaining',
  stopped: 'In the tray',
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
  children: ReactNode;
};

/** The piles that terms lie on; counts follow the tray. Beside them, how far the pass has come. */
export function ViewTabs({ view, counts, pass, shows, onChange, onShow, onKeptList, children }: Props) {
  return (
    <TabbedView
      label="Show"
      className="px-3"
      tabs={SIFT_VIEWS.map((value) => ({
        ...{ value, name: NAMES[value], count: counts ? formatCount(counts[value]) : '' },
      }))}
      value={view}
      onChange={onChange}
      beside={
        <>
          {view === 'kept' && (
            <button type="button" className="min-h-6 text-pine hover:underline" onClick={onKeptList}>
              the whole list
            </button>
          )}
          <Explain about="the piles" className="min-w-6">
            {PILES}
          </Explain>
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
        </>
      }
    >
      {children}
    </TabbedView>
  );
}

const PILES =
  'Remaining is what nobody has decided about. What the tray would stop leaves it at once. Kept terms stay open, and nothing may stop them. A term that is set aside is hidden until it has as many more clicks as were said then; it comes back by itself. Already stopped is what negatives in force stop by now.';

function Progress({ pass: { terms, ofTerms, costMicros, ofCostMicros } }: { pass: PassProgress }) {
  const ofSpend = ofCostMicros > 0 ? costMicros / ofCostMicros : 0;
  const said = `${formatCount(terms)} of ${formatCount(ofTerms)} terms looked at or decided since the last report: ${formatShare(ofSpend)} of the spend. The key n goes to the next.`;
  return (
    <span className="flex items-center gap-1.5 text-small text-soft" data-testid="pass">
      <span className="sr-only">{said}</span>
      <Explain about="the pass" trigger={formatShare(ofSpend)}>
        {said}
      </Explain>
      <progress className="w-9" max={1} value={ofSpend} aria-label="Share of the spend looked at" />
    </span>
  );
}
