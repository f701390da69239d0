'use client';

import { ReasonForm } from '@/screens/tray/reason-form';
import { counted } from '@/core';

type Props = {
  said: string;
  count: number;
  onForce: (because: string) => Promise<void>;
  onLeave: () => void;
};

/** What was held back, and the reason that forces it. */
export function HeldBack({ said, count, onForce, onLeave }: Props) {
  return (
    <div className="my-1.5 border-l-[3px] border-rust bg-rust/10 px-2.5 py-1.5 text-table">
      {said} {count > 1 && `(${counted(count, 'change')} like this.)`}
      <ReasonForm onForce={(reason) => void onForce(reason)} onLeave={onLeave} />
    </div>
  );
}
