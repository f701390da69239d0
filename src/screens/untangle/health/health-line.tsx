'use client';

import { useState } from 'react';
import { counted } from '@/core';
import type { ConflictsView as View } from '@/contracts/untangle';
import { formatConversions, formatCount, formatDay } from '@/ui/format';
import { useLook } from '../use-fresh';
import { HealthDialog, knotsIn } from './health-dialog';

type Health = { view: View; needless: number | undefined; twice: number | undefined };

/** How it stands, in a sentence. */
export function HealthLine({ view: { counts, lost, days }, needless, twice }: Health) {
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
      {counts.inTray > 0 && `; ${formatCount(counts.inTray)} more are mended by the tray`}
      {needless !== undefined &&
        needless > 0 &&
        `; ${counted(needless, 'negative')} ${needless === 1 ? 'is' : 'are'} needless`}
      {twice !== undefined &&
        twice > 0 &&
        `; ${counted(twice, 'keyword')} ${twice === 1 ? 'stands' : 'stand'} twice`}
      .
      <OverTime />
    </p>
  );
}

/** How many knots there were at first, leading to how it went since. */
function OverTime() {
  const [isOpen, setOpen] = useState(false);
  const days = useLook()?.days ?? [];
  if (days.length < 2) return null;
  return (
    <>
      {' '}
      <button type="button" className="min-h-6 text-pine hover:underline" onClick={() => setOpen(true)}>
        {formatCount(knotsIn(days.at(-1)!))} knots in all, {formatCount(knotsIn(days[0]!))} on{' '}
        {formatDay(days[0]!.day)}
      </button>
      {isOpen && <HealthDialog days={days} onClose={() => setOpen(false)} />}
    </>
  );
}
