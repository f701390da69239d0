'use client';

import * as v from 'valibot';
import { Button } from '@/ui/button';
import { TextField, useValidForm } from '@/ui/form';

const ReasonSchema = v.object({
  reason: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(3, 'Give a reason of three letters or more; it stands in the Ledger.'),
    v.maxLength(500, 'A reason may hold 500 letters.'),
  ),
});

/** The reason for which a change that is held back goes in all the same; it stands in the Ledger. */
export function ReasonForm({
  onForce,
  onLeave,
  isFocused = false,
}: {
  onForce: (reason: string) => void;
  /** left where something else leads away */
  onLeave?: () => void;
  isFocused?: boolean;
}) {
  const { register, handleSubmit, formState } = useValidForm(ReasonSchema, { reason: '' });
  return (
    <form
      className="mt-1"
      onSubmit={(event) => void handleSubmit(({ reason }) => onForce(reason.trim()))(event)}
    >
      <TextField
        label="Reason to force it"
        autoFocus={isFocused}
        fault={formState.errors.reason?.message}
        {...register('reason')}
      />
      <div className="mt-1.5 flex gap-2">
        <Button type="submit" tone="danger">
          Force it, with this reason
        </Button>
        {onLeave && <Button onClick={onLeave}>Leave it</Button>}
      </div>
    </form>
  );
}
