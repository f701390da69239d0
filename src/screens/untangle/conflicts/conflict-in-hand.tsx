'use client';

import * as v from 'valibot';
import { counted, listed } from '@/core';
import { LeaveKnotSchema, type MendsView } from '@/contracts/untangle';
import { InHand } from '@/screens/frame/in-hand';
import { useMoney } from '@/screens/frame/money';
import { Button, Key } from '@/ui/button';
import { TextField, useValidForm } from '@/ui/form';
import { conversionsOf, formatDay, formatMoment } from '@/ui/format';
import type { ConflictChoice } from './use-conflict';

/** The conflict in hand: by which road the negative is in force, since when, and what it cost. */
export function ConflictInHand({ conflict, days }: { conflict: ConflictChoice; days: number | undefined }) {
  const money = useMoney();
  const { line, mends, isLeaving } = conflict;
  if (!line) {
    return (
      <InHand>
        <p className="mt-1 text-table text-soft">Nothing is in hand.</p>
      </InHand>
    );
  }
  const { negative, keyword, lost, seat, left } = line;
  return (
    <InHand
      title={`${negative.text} → ${keyword?.text ?? line.protected.first[0]}`}
      actions={!isLeaving && <Actions conflict={conflict} />}
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
      {left && (
        <p className="mt-1.5 text-table">
          Left by {left.by}, {formatMoment(left.at)}
          {left.until !== null && `, until ${formatDay(left.until, true)}`}: {left.why}
        </p>
      )}
      {isLeaving && <LeaveForm key={line.key} conflict={conflict} />}
    </InHand>
  );
}

function sayPassing({ passing: { count, first } }: MendsView): string {
  const named = listed(first.map((text) => `“${text}”`));
  return `Has to pass: ${named}${count > first.length ? ` and ${count - first.length} more` : ''}.`;
}

function Actions({ conflict }: { conflict: ConflictChoice }) {
  const { line, mends } = conflict;
  return (
    <div className="flex flex-wrap gap-1.5">
      <Button tone="main" disabled={!mends || mends.mends.length === 0} onClick={() => void conflict.put()}>
        Put in the tray <Key>↵</Key>
      </Button>
      {line?.left ? (
        <Button onClick={() => void conflict.takeUp()}>
          Take up again <Key>l</Key>
        </Button>
      ) : (
        <Button onClick={conflict.startLeaving}>
          Leave it… <Key>l</Key>
        </Button>
      )}
    </div>
  );
}

const LeaveSchema = v.object({
  why: LeaveKnotSchema.entries.why,
  until: v.union([v.literal(''), v.pipe(v.string(), v.isoDate('Choose a day.'))]),
});

/** Why it is left, and until when. */
function LeaveForm({ conflict }: { conflict: ConflictChoice }) {
  const { register, handleSubmit, formState } = useValidForm(LeaveSchema, { why: '', until: '' });
  return (
    <form
      aria-label="Leave it"
      className="mt-2 border-t border-line pt-2 text-table"
      onSubmit={(event) =>
        void handleSubmit(({ why, until }) =>
          conflict.leave({ why: why.trim(), until: until === '' ? null : until }),
        )(event)
      }
      onKeyDown={(event) => event.key === 'Escape' && conflict.stopLeaving()}
    >
      <TextField
        label="Why it is left"
        autoFocus
        fault={formState.errors.why?.message}
        {...register('why')}
      />
      <TextField
        label="Until (empty: until something about it changes)"
        type="date"
        className="mt-1.5"
        fault={formState.errors.until?.message}
        {...register('until')}
      />
      <div className="mt-1.5 flex gap-2">
        <Button type="submit" tone="main">
          Leave it
        </Button>
        <Button onClick={conflict.stopLeaving}>Do not</Button>
      </div>
    </form>
  );
}
