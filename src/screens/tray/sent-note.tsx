'use client';

import type { SentState } from '@/contracts/tray';
import { useAccount } from '@/screens/frame/account-context';
import { Button } from '@/ui/button';
import { formatDay, formatMoment } from '@/ui/format';
import { HandedOver } from './hand-over/handed-over';
import { useTrayActions } from './use-tray';
import { counted } from '@/core';

/** What was sent or handed over: its progress while it is on its way, and what became of it. */
export function SentNote({ sent }: { sent: SentState }) {
  const { sendAgain, takeBack, stop } = useTrayActions();
  return (
    <div
      role="status"
      data-testid="sent-note"
      className="-mx-4 mt-2 border-y border-line bg-raised px-4 py-2 text-table"
    >
      <Headline sent={sent} />
      {sent.state === 'sending' && sent.sendAt !== null && (
        <div className="mt-1 flex flex-wrap gap-1.5">
          <Button onClick={() => void stop(sent.setId)}>Back to the tray</Button>
          <Button onClick={() => void sendAgain(sent.setId)}>Send it now</Button>
        </div>
      )}
      {isAnswering(sent) && (
        <p className="mt-1">
          {sent.isStopped ? (
            'It stops after the batch that is on its way.'
          ) : (
            <Button onClick={() => void stop(sent.setId)}>Stop after this batch</Button>
          )}
        </p>
      )}
      {sent.trouble && (
        <>
          <p className="text-rust">{sent.trouble}</p>
          <div className="mt-1 flex flex-wrap gap-1.5">
            <Button onClick={() => void sendAgain(sent.setId)}>Try now</Button>
            <Button onClick={() => void takeBack(sent.setId)}>Back to the tray</Button>
          </div>
        </>
      )}
      {(sent.state === 'handed over' || sent.state === 'said to be done') && <HandedOver sent={sent} />}
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
      {sent.lost > 0 && sent.state === 'partly failed' && (
        <Button onClick={() => void takeBack(sent.setId)}>
          Back to the tray{sent.lost < sent.failed.length && `: ${sent.lost}`}
        </Button>
      )}
    </div>
  );
}

const isAnswering = ({ state, sendAt, trouble, answered, total }: SentState) =>
  state === 'sending' && sendAt === null && trouble === null && answered < total;

function Headline({
  sent: { state, sentBy, sentAt, sendAt, total, answered, confirmed, failed, isStopped },
}: {
  sent: SentState;
}) {
  const { summary } = useAccount();
  const changes = counted(total, 'change');
  const day = sentAt ? formatDay(sentAt.slice(0, 10)) : '';
  switch (state) {
    case 'sending':
      if (sendAt !== null)
        return (
          <p>
            <b>To be sent on {formatMoment(sendAt)}</b>, set by {sentBy}: {changes}. Until then nothing of it
            is on the platform.
          </p>
        );
      return (
        <>
          <p>
            <b>Sending:</b> {answered} of {changes} answered
            {answered === total && ', reading back'}.
          </p>
          <progress className="mt-1 w-full" max={total} value={answered} aria-label="Changes answered" />
        </>
      );
    case 'handed over':
      return (
        <p>
          <b>
            Handed over by {sentBy}, {day}:
          </b>{' '}
          {changes}. Nothing of it counts as in force until somebody says that it was carried out.
        </p>
      );
    case 'said to be done':
      return (
        <p>
          <b>
            Said to be done, {sentBy}, {day}:
          </b>{' '}
          {counted(total - confirmed - failed.length, 'change')}, until a structure file shows it
          {confirmed > 0 && `; ${confirmed} shown as said`}.
        </p>
      );
    case 'confirmed':
    case 'partly failed':
      return (
        <p>
          <b>
            {summary.isConnected ? 'Sent' : 'Handed over'} by {sentBy}:
          </b>{' '}
          {confirmed} of {changes} {summary.isConnected ? 'read back as sent' : 'shown by a structure file'}
          {failed.length > 0 ? '. The others:' : '.'}
          {isStopped && ' Its sending was stopped; the rest went back to the tray.'}
        </p>
      );
  }
}
