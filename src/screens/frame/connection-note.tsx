'use client';

import { useCallback, type ReactNode } from 'react';
import { counted } from '@/core';
import { PARTS } from '@/contracts/routes';
import { useRefresh } from '@/screens/frame/data/refresh';
import { Button } from '@/ui/button';
import { formatMoment } from '@/ui/format';
import type { Waiting } from '@/ui/outbox';
import { useWaiting } from './data/decide';
import { usePulse } from './data/pulse';

/** Says what is down, and which decisions wait until it is back. */
export function ConnectionNote() {
  const { trouble, jobsSilentSince } = usePulse();
  const refresh = useRefresh();
  const onSent = useCallback(() => void refresh(PARTS), [refresh]);
  const { waiting, retry, drop } = useWaiting(onSent);
  const onWay = waiting.filter(({ stuck }) => stuck === undefined);
  const stuck = waiting.filter((one) => one.stuck !== undefined);
  return (
    <>
      {(trouble !== null || onWay.length > 0) && (
        <Trouble>
          <b>{trouble ?? 'Gate Post did not answer just now.'}</b> What you see is as it was before.{' '}
          {onWay.length > 0
            ? `${counted(onWay.length, 'decision is', 'decisions are')} kept in this browser and sent when it is back.`
            : 'What you decide meanwhile is kept in this browser and sent when it is back.'}
          {onWay.length > 0 && <WhatWaits waiting={onWay} />}
        </Trouble>
      )}
      {stuck.length > 0 && (
        <Trouble>
          <b>{counted(stuck.length, 'decision')} could not be done, and stays in this browser.</b>{' '}
          {stuck[0]!.stuck}
          <WhatWaits waiting={stuck} onDrop={drop} />
          <Button className="mt-1" onClick={retry}>
            Try again
          </Button>
        </Trouble>
      )}
      {trouble === null && jobsSilentSince !== null && (
        <Trouble>
          <b>
            The process that loads reports and sends the tray{' '}
            {jobsSilentSince === ''
              ? 'is not there.'
              : `has not been heard of since ${formatMoment(jobsSilentSince)}.`}
          </b>{' '}
          It is started again by itself; loading and sending go on then. If this stays, run “./gatepost
          start”.
        </Trouble>
      )}
    </>
  );
}

function Trouble({ children }: { children: ReactNode }) {
  return (
    <div
      role="status"
      className="border-b border-line border-l-[3px] border-l-rust bg-rust/10 px-4 py-1.5 text-table"
    >
      {children}
    </div>
  );
}

function WhatWaits({ waiting, onDrop }: { waiting: readonly Waiting[]; onDrop?: (id: number) => void }) {
  return (
    <details>
      <summary>What waits</summary>
      <ul className="list-disc pl-5">
        {waiting.map(({ id, said }) => (
          <li key={id}>
            {said}{' '}
            {onDrop && (
              <Button tone="quiet" aria-label={`Give up: ${said}`} onClick={() => onDrop(id)}>
                Give up
              </Button>
            )}
          </li>
        ))}
      </ul>
    </details>
  );
}
