'use client';

import type { SentState } from '@/contracts/tray';
import { Button } from '@/ui/button';
import { plural } from '@/ui/format';
import { useTrayActions } from './use-tray';

/** What was sent last: its progress while it is on its way, and what the read-back found. */
export function SentNote({ sent }: { sent: SentState }) {
  const { sendAgain } = useTrayActions();
  return (
    <div
      role="status"
      data-testid="sent-note"
      className="-mx-4 mt-2 border-y border-line bg-raised px-4 py-2 text-[13px]"
    >
      {sent.state === 'sending' ? (
        <>
          <p>
            <b>Sending:</b> {sent.answered} of {plural(sent.total, 'change')} answered
            {sent.answered === sent.total && ', reading back'}.
          </p>
          <progress
            className="mt-1 w-full"
            max={sent.total}
            value={sent.answered}
            aria-label="Changes answered"
          />
        </>
      ) : (
        <p>
          <b>Sent by {sent.sentBy}:</b> {sent.confirmed} of {plural(sent.total, 'change')} read back as sent
          {sent.failed.length > 0 ? '. The others:' : '.'}
        </p>
      )}
      {sent.trouble && (
        <>
          <p className="text-rust">{sent.trouble}</p>
          <Button className="mt-1" onClick={() => void sendAgain(sent.setId)}>
            Try now
          </Button>
        </>
      )}
      {sent.failed.length > 0 && (
        <ul className="mt-1 list-disc pl-4 text-rust">
          {sent.failed.slice(0, 5).map(({ said, reason }) => (
            <li key={said}>
              {said}: {reason}
            </li>
          ))}
          {sent.failed.length > 5 && <li>and {sent.failed.length - 5} more</li>}
        </ul>
      )}
    </div>
  );
}
