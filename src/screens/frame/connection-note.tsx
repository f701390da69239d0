'use client';

import { useWaiting } from './data/decide';
import { usePulse } from './data/pulse';
import { useCallback } from 'react';
import { PARTS } from '@/contracts/routes';
import { useRefresh } from '@/screens/frame/data/refresh';
import { counted } from '@/core';

/** Says that the connection is lost, and what waits for it. */
export function ConnectionNote() {
  const { isConnected } = usePulse();
  const refresh = useRefresh();
  const onSent = useCallback(() => void refresh(PARTS), [refresh]);
  const waiting = useWaiting(onSent);
  if (isConnected && waiting.length === 0) return null;
  const kept =
    waiting.length > 0
      ? `${counted(waiting.length, 'decision is', 'decisions are')} kept in this browser and sent when it is back.`
      : 'What you decide meanwhile is kept in this browser and sent when it is back.';
  return (
    <div
      role="status"
      className="border-b border-line border-l-[3px] border-l-rust bg-rust/10 px-4 py-1.5 text-table"
    >
      <b>No connection to Gate Post.</b> What you see is as it was before. {kept}
      {waiting.length > 0 && (
        <details>
          <summary>What waits</summary>
          <ul className="list-disc pl-5">
            {waiting.map(({ id, said }) => (
              <li key={id}>{said}</li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
