'use client';

import * as v from 'valibot';
import { LeaveKnotSchema } from '@/contracts/knots';
import { Button, Key } from '@/ui/button';
import { TextField, useValidForm } from '@/ui/form';
import { formatDay, formatMoment } from '@/ui/format';
import type { Leaving } from './use-leaving';

/** Leaves the knot in hand, or takes it up again. */
export function LeaveButton({ leaving: { knot, turn } }: { leaving: Leaving }) {
  return (
    <Button onClick={turn}>
      {knot?.left ? 'Take up again' : 'Leave it…'} <Key>l</Key>
    </Button>
  );
}

/** Who left the knot in hand, and why; or the form for that, while it is asked. */
export function LeftOrLeaving({ leaving }: { leaving: Leaving }) {
  const { knot, isLeaving } = leaving;
  const left = knot?.left;
  return (
    <>
      {left && (
        <p className="mt-1.5 text-table">
          Left by {left.by}, {formatMoment(left.at)}
          {left.until !== null && `, until ${formatDay(left.until, true)}`}: {left.why}
        </p>
      )}
      {isLeaving && <LeaveForm key={knot!.key} leaving={leaving} />}
    </>
  );
}

const LeaveSchema = v.object({
  why: LeaveKnotSchema.entries.why,
  until: v.union([v.literal(''), v.pipe(v.string(), v.isoDate('Choose a day.'))]),
});

/** Why it is left, and until when. */
function LeaveForm({ leaving: { leave, stop } }: { leaving: Leaving }) {
  const { register, handleSubmit, formState } = useValidForm(LeaveSchema, { why: '', until: '' });
  return (
    <form
      aria-label="Leave it"
      className="mt-2 border-t border-line pt-2 text-table"
      onSubmit={(event) =>
        void handleSubmit(({ why, until }) => leave({ why: why.trim(), until: until === '' ? null : until }))(
          event,
        )
      }
      onKeyDown={(event) => event.key === 'Escape' && stop()}
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
        <Button onClick={stop}>Do not</Button>
      </div>
    </form>
  );
}
