'use client';

import { useState, type ReactNode } from 'react';
import type { ListEdit } from '@/contracts/list-edits';
import { askToSend } from '@/screens/tray/ask-to-send';
import { Button } from '@/ui/button';
import { PlanView } from './plan-view';
import { usePlan, usePutEdit } from './use-edits';

type Props = {
  edit: ListEdit;
  onDone: () => void;
  onLeave: () => void;
  children?: ReactNode;
};

/** An edit with what it would come to, and the buttons that put it in the tray or leave it. */
export function EditInHand({ edit, onDone, onLeave, children }: Props) {
  const [busy, setBusy] = useState(false);
  const { data: plan, error } = usePlan(edit, !busy); // what is being put in is not asked about again
  const put = usePutEdit();
  const [held, setHeld] = useState<string | null>(null);
  const [reason, setReason] = useState('');

  async function putIn(because?: string, sends = false) {
    setBusy(true);
    const outcome = await put(edit, because);
    setBusy(false);
    if (outcome?.heldBack) setHeld(outcome.heldBack.said);
    else if (outcome) {
      onDone();
      if (sends) askToSend();
    }
  }

  return (
    <div className="mt-1 flex flex-col gap-1.5 text-table">
      {children}
      {error && <p className="text-rust">{error.message}</p>}
      {!plan && !error && <p className="text-soft">Reckoning…</p>}
      {plan && <PlanView plan={plan} />}
      {held && (
        <label className="block border-l-[3px] border-rust bg-rust/10 px-2.5 py-1.5">
          {held} The rest is in the tray. Reason to force it
          <input
            className="mt-1 w-full rounded border border-line bg-sheet px-1.5"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
        </label>
      )}
      <div className="flex flex-wrap gap-2">
        <Button
          tone={held ? 'danger' : 'main'}
          disabled={busy || !plan || plan.changes === 0 || (held !== null && reason.trim().length < 3)}
          onClick={() => void putIn(held ? reason.trim() : undefined)}
        >
          {held ? 'Force it, with this reason' : 'Put in the tray'}
        </Button>
        {!held && (
          <Button
            disabled={busy || !plan || plan.changes === 0}
            title="Puts it in the tray and opens the page from which the tray is sent"
            onClick={() => void putIn(undefined, true)}
          >
            and send…
          </Button>
        )}
        <Button onClick={held ? onDone : onLeave}>Leave it</Button>
      </div>
    </div>
  );
}
