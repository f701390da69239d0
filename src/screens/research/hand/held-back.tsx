'use client';

import { ReasonForm } from '@/screens/tray/reason-form';
import type { RemainderChoice } from './use-remainder';

/** What was held back, and the reason for which it goes in all the same; nothing while nothing was. */
export function HeldBack({ remainder: { heldBack, put } }: { remainder: RemainderChoice }) {
  if (heldBack === undefined) return null;
  return (
    <div className="mt-2 border-l-[3px] border-rust bg-rust/10 px-2.5 py-2 text-table" role="alert">
      <p>{heldBack}</p>
      <ReasonForm onForce={(reason) => void put(reason)} />
    </div>
  );
}
