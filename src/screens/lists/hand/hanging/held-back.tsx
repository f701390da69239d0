'use client';

import { useState } from 'react';
import { Button } from '@/ui/button';
import { counted } from '@/core';

type Props = {
  said: string;
  count: number;
  onForce: (because: string) => Promise<void>;
  onLeave: () => void;
};

/** What was held back, and the reason that forces it. */
export function HeldBack({ said, count, onForce, onLeave }: Props) {
  const [reason, setReason] = useState('');
  return (
    <div className="my-1.5 border-l-[3px] border-rust bg-rust/10 px-2.5 py-1.5 text-table">
      <label className="block">
        {said} {count > 1 && `(${counted(count, 'change')} like this.)`} Reason to force it
        <input
          className="mt-1 w-full rounded border border-line bg-sheet px-1.5"
          value={reason}
          onChange={(e) => setReason(e.target.value)}
        />
      </label>
      <div className="mt-1.5 flex gap-2">
        <Button tone="danger" disabled={reason.trim().length < 3} onClick={() => void onForce(reason.trim())}>
          Force it, with this reason
        </Button>
        <Button onClick={onLeave}>Leave it</Button>
      </div>
    </div>
  );
}
