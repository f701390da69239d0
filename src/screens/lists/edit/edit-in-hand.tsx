'use client';

import { useState, type ReactNode } from 'react';
import type { ListEdit } from '@/contracts/list-edits';
import { askToSend } from '@/screens/tray/ask-to-send';
import { ReasonForm } from '@/screens/tray/reason-form';
import { Button } from '@/ui/button';
import { PlanView } from './plan-view';
import { usePlan, usePutEdit } from './use-edits';
import { ErrorText } from '@/ui/said';

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

  const isReady = !busy && plan !== undefined && plan.changes > 0;

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
      <ErrorText error={error} />
      {!plan && !error && <p className="text-soft">Reckoning…</p>}
      {plan && <PlanView plan={plan} />}
      {held ? (
        <div className="border-l-[3px] border-rust bg-rust/10 px-2.5 py-1.5">
          {held} The rest is in the tray.
          <ReasonForm onForce={(reason) => void putIn(reason)} onLeave={onDone} />
        </div>
      ) : (
        <div className="flex flex-wrap gap-2">
          <Button tone="main" disabled={!isReady} onClick={() => void putIn()}>
            Put in the tray
          </Button>
          <Button disabled={!isReady} onClick={() => void putIn(undefined, true)}>
            Put in and send…
          </Button>
          <Button onClick={onLeave}>Leave it</Button>
        </div>
      )}
    </div>
  );
}
