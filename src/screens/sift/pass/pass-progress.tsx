'use client';

import type { PassAnswer } from '@/contracts/pass';
import { useMoney } from '@/screens/frame/money';
import { formatConversions, formatDay, formatShare } from '@/ui/format';

/** How far the pass is: what the tray stops, of that and of what the first two steps would still stop. */
export function PassProgress({ answer }: { answer: PassAnswer }) {
  const formatMoney = useMoney();
  const { stoppedMicros, gain, conversions, since } = answer;
  const toGainMicros = gain.words.costMicros + gain.terms.costMicros;
  const risks = gain.words.risks + gain.terms.risks;
  const all = stoppedMicros + toGainMicros;
  if (all === 0) {
    return (
      <p className="border-b border-line px-3 py-2 text-table" role="status">
        <b>By what is known, nothing surely can’t pay.</b>{' '}
        <span className="text-soft">
          A word is judged once its ad groups should have brought a conversion with its clicks, and more days
          tell more: bring older reports, or read what is left by cost.
        </span>
      </p>
    );
  }
  const share = stoppedMicros / all;
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-3 py-1.5 text-table">
      <span className="flex items-baseline gap-2">
        <b className="font-title text-figure leading-7" data-testid="to-gain">
          {formatMoney(toGainMicros)}
        </b>
        <span className="text-soft">still to gain in this window</span>
      </span>
      <span className="flex items-center gap-2" role="status">
        <progress
          className="w-24"
          max={1}
          value={share}
          aria-label="Share of what can surely be stopped that the tray stops"
        />
        {formatShare(share)} of it in the tray: {formatMoney(stoppedMicros)}
      </span>
      <span className="text-soft">
        what is still to gain risks about {risks.toFixed(1)} of {formatConversions(conversions)} conversions
        {since && `; judged by all days since ${formatDay(since)}`}
      </span>
    </div>
  );
}
