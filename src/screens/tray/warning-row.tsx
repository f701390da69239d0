'use client';

import { useState } from 'react';
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
      {asksReason && <Reason mend={asksReason} onDone={() => setAsksReason(null)} />}
    </div>
  );
}

type ReasonProps = { mend: Extract<Mend, { do: 'give a reason' }>; onDone: () => void };

/** The change goes in again with the reason, which stands in the ledger. */
function Reason({ mend: { change }, onDone }: ReasonProps) {
  const { draft } = useTrayActions();
  const [reason, setReason] = useState('');
  return (
    <form
      className="mt-1 flex gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim().length < 3) return;
        void draft([
          { change: change.change, why: change.why ?? undefined, forcedBecause: reason.trim() },
        ]).then(onDone);
      }}
    >
      <input
        autoFocus
        aria-label="Reason to force it"
        className="min-w-0 flex-1 rounded border border-line bg-sheet px-1.5 py-0.5"
        maxLength={500}
        value={reason}
        onChange={(e) => setReason(e.target.value)}
      />
      <button
        type="submit"
        disabled={reason.trim().length < 3}
        className="rounded border border-rust px-2 font-semibold text-rust disabled:opacity-50"
      >
        Force it, with this reason
      </button>
    </form>
  );
}
