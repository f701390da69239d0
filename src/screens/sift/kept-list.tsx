'use client';

import { useQuery } from '@tanstack/react-query';
import * as v from 'valibot';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { TextField, useValidForm } from '@/ui/form';
import { formatDay } from '@/ui/format';
import { useVerdict } from './hand/use-verdict';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';
import { ErrorText } from '@/ui/said';

const KeepSchema = v.object({
  raw: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, 'Type a query.'),
    v.maxLength(400, 'A query may hold 400 letters.'),
  ),
  note: v.pipe(v.string(), v.trim(), v.maxLength(500, 'A note may hold 500 letters.')),
});

/** Everything that must stay open: the people's own list with its notes, whether it was searched for lately or not. */
export function KeptList({ onClose }: { onClose: () => void }) {
  const setVerdict = useVerdict();
  const { register, handleSubmit, reset, formState } = useValidForm(KeepSchema, { raw: '', note: '' });
  const { query } = useRoutes();
  const { data, error } = useQuery({
    ...query('GET verdict'),
  });
  return (
    <DialogFrame
      title="What must stay open"
      says={
        <>
          Nothing may stop these as queries.{' '}
          {data &&
            data.keeperConversions !== null &&
            data.earned > 0 &&
            `Beside them ${counted(data.earned, 'term is', 'terms are')} protected since they had ${counted(data.keeperConversions, 'conversion')} or more.`}
        </>
      }
      width={640}
      onClose={onClose}
    >
      <form
        className="mt-2 flex items-start gap-2"
        onSubmit={(event) =>
          void handleSubmit(({ raw, note }) =>
            setVerdict({ id: 0, raw: raw.trim() }, { is: 'kept', note: note.trim() || undefined }).then(() =>
              reset(),
            ),
          )(event)
        }
      >
        <TextField
          {...{ label: 'Query to keep open', placeholder: 'A query', className: 'flex-1' }}
          isLabelHidden
          fault={formState.errors.raw?.message}
          {...register('raw')}
        />
        <TextField
          {...{ label: 'Why', placeholder: 'Why (a note)', className: 'flex-1' }}
          isLabelHidden
          fault={formState.errors.note?.message}
          {...register('note')}
        />
        <Button type="submit" tone="main" className="mt-0.5">
          Keep
        </Button>
      </form>
      <ErrorText error={error} />
      <div className="mt-2 min-h-0 overflow-y-auto" tabIndex={0} role="group" aria-label="Kept queries">
        {data?.kept.length === 0 && <p className="text-soft">Nobody has kept a query here yet.</p>}
        <table className="w-full">
          <tbody>
            {data?.kept.map((term) => (
              <tr key={term.text} className="border-t border-line">
                <td className="py-1 font-semibold">{term.raw}</td>
                <td className="px-2">{term.note}</td>
                <td className="whitespace-nowrap text-soft">
                  {term.by}, {formatDay(term.at.slice(0, 10))}
                </td>
                <td className="text-right">
                  <Button
                    tone="quiet"
                    aria-label={`Let ${term.raw} go`}
                    onClick={() => void setVerdict({ id: 0, raw: term.raw }, { is: 'open' }, 'kept')}
                  >
                    Let go
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Button className="mt-3 self-start" onClick={onClose}>
        Close
      </Button>
    </DialogFrame>
  );
}
