'use client';

import { counted, listed } from '@/core';
import type { MendsView } from '@/contracts/untangle';
import { InHand } from '@/screens/frame/in-hand';
import { useMoney } from '@/screens/frame/money';
import { Button, Key } from '@/ui/button';
import { conversionsOf, formatDay } from '@/ui/format';
import { LeaveButton, LeftOrLeaving } from '../leaving/leave';
import type { ConflictChoice } from './use-conflict';

/** The conflict in hand: by which road the negative is in force, since when, and what it cost. */
export function ConflictInHand({ conflict, days }: { conflict: ConflictChoice; days: number | undefined }) {
  const money = useMoney();
  const { line, mends, leaving } = conflict;
  if (!line) {
    return (
      <InHand>
        <p className="mt-1 text-table text-soft">Nothing is in hand.</p>
      </InHand>
    );
  }
  const { negative, keyword, lost, seat } = line;
  return (
    <InHand
      title={`${negative.text} → ${keyword?.text ?? line.protected.first[0]}`}
      actions={!leaving.isLeaving && <Actions conflict={conflict} />}
    >
      <p className="mt-1 text-table">
        Stands in <b>{negative.placeName}</b>
        {mends?.hangsOn != null && `, which hangs on ${counted(mends.hangsOn, 'campaign')}`}
        {mends?.since != null && `; it stops here since ${formatDay(mends.since, true)}`}.
      </p>
      {keyword && (
        <p className="text-table text-soft">
          The keyword: {keyword.campaign} · {keyword.adGroup}, {keyword.match}.
        </p>
      )}
      {seat && (
        <p className="mt-1 text-table text-moss">
          Meant so: its queries are kept for “{seat.text}” ({seat.match}) in {seat.campaign} · {seat.adGroup}.
        </p>
      )}
      <p className="mt-1.5 text-small text-soft">in the {days ?? ''} days before it came into force</p>
      <p className="text-table">
        {lost ? (
          <>
            {counted(lost.terms, 'term')}, {counted(lost.clicks, 'click')}, {money(lost.costMicros)},{' '}
            <b className={lost.conversions > 0 ? 'text-moss' : ''}>{conversionsOf(lost)}</b>
          </>
        ) : (
          'Not known: it came into force before the data begins.'
        )}
      </p>
      {mends && mends.passing.count > 0 && <p className="mt-1.5 text-table text-soft">{sayPassing(mends)}</p>}
      <LeftOrLeaving leaving={leaving} />
    </InHand>
  );
}

function sayPassing({ passing: { count, first } }: MendsView): string {
  const named = listed(first.map((text) => `“${text}”`));
  return `Has to pass: ${named}${count > first.length ? ` and ${count - first.length} more` : ''}.`;
}

function Actions({ conflict }: { conflict: ConflictChoice }) {
  const { mends } = conflict;
  return (
    <div className="flex flex-wrap gap-1.5">
      <Button tone="main" disabled={!mends || mends.mends.length === 0} onClick={() => void conflict.put()}>
        Put in the tray <Key>↵</Key>
      </Button>
      <LeaveButton leaving={conflict.leaving} />
    </div>
  );
}
