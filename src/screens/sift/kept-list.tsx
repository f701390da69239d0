'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { formatDay } from '@/ui/format';
import { useVerdict } from './hand/use-verdict';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';

/** Everything that must stay open: the people's own list with its notes, whether it was searched for lately or not. */
export function KeptList({ onClose }: { onClose: () => void }) {
  const setVerdict = useVerdict();
  const [raw, setRaw] = useState('');
  const [note, setNote] = useState('');
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
        className="mt-2 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (raw.trim() === '') return;
          void setVerdict({ id: 0, raw: raw.trim() }, { is: 'kept', note: note.trim() || undefined }).then(
            () => {
              setRaw('');
              setNote('');
            },
          );
        }}
      >
        <input
          aria-label="Query to keep open"
          placeholder="A query"
          className="min-w-0 flex-1 rounded border border-line bg-sheet px-2 py-1"
          value={raw}
          onChange={(e) => setRaw(e.target.value)}
        />
        <input
          aria-label="Why"
          placeholder="Why (a note)"
          className="min-w-0 flex-1 rounded border border-line bg-sheet px-2 py-1"
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
        <Button type="submit" tone="main" disabled={raw.trim() === ''}>
          Keep
        </Button>
      </form>
      {error && <p className="mt-2 text-rust">{error.message}</p>}
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
