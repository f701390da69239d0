'use client';

import { useState } from 'react';
import type { TrayChange } from '@/contracts/tray';
import { ReasonForm } from './reason-form';
import { useTrayActions } from './use-tray';
import type { Mend, Warning } from './warnings';

/** A warning before sending, with what puts it right beside it. */
export function WarningRow({ warning: { tone, text, mends } }: { warning: Warning }) {
  const [asksReason, setAsksReason] = useState<Extract<Mend, { do: 'give a reason' }> | null>(null);
  const { remove, draft } = useTrayActions();

  function apply(mend: Mend) {
    switch (mend.do) {
      case 'take out':
        return void remove(mend.changeIds);
      case 'drop':
        return void draft(
          mend.negatives.map((negative) => ({
            change: { kind: 'remove negative', ...negative, place: mend.at },
            why: 'needless there, and the place is full',
          })),
        );
      case 'give a reason':
        return setAsksReason(mend);
    }
  }

  /** The change goes in again with the reason. */
  async function force({ change, why }: TrayChange, reason: string) {
    await draft([{ change, why: why ?? undefined, forcedBecause: reason }]);
    setAsksReason(null);
  }

  return (
    <div
      className={`mb-2 border-l-[3px] px-2.5 py-1.5 text-table ${tone === 'stop' ? 'border-rust bg-rust/10' : 'border-timber bg-timber/10'}`}
    >
      <p>
        {text}{' '}
        {mends.map((mend) => (
          <button
            key={mend.name}
            type="button"
            className="mr-2 min-h-6 font-semibold text-pine hover:underline"
            onClick={() => apply(mend)}
          >
            {mend.name}
          </button>
        ))}
      </p>
      {asksReason && <ReasonForm isFocused onForce={(reason) => void force(asksReason.change, reason)} />}
    </div>
  );
}
