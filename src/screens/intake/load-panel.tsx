'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import type { ReadingAnswer, ReadOptionsInput, ReportFileView } from '@/contracts/intake';
import { useAccount } from '@/screens/frame/account-context';
import { sayFailure } from '@/screens/tray/use-tray';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { formatCount, plural } from '@/ui/format';

type Props = { file: ReportFileView; answer: ReadingAnswer; options: ReadOptionsInput; onLoaded: () => void };

/** Loading what was read: all or nothing, with progress and a way to cancel. */
export function LoadPanel({ file, answer, options, onLoaded }: Props) {
  const { api } = useAccount();
  const router = useRouter();
  const client = useQueryClient();
  const [asked, setAsked] = useState(false);
  const was = useRef(file.state);
  useEffect(() => {
    if (was.current !== file.state && file.state === 'loaded') {
      onLoaded();
      router.refresh();
    }
    was.current = file.state;
  }, [file.state, onLoaded, router]);

  async function call(method: 'POST' | 'DELETE') {
    setAsked(true);
    try {
      await ask(api(`intake/${file.id}/load`), { method, ...(method === 'POST' && { body: options }) });
      await client.invalidateQueries({ queryKey: ['intake'] });
    } catch (error) {
      sayFailure(error);
    } finally {
      setAsked(false);
    }
  }

  const { reading, loadedBefore, daysThere } = answer;
  return (
    <div className="mt-2 text-[13px]" data-testid="load-panel">
      {file.state === 'loaded' && file.outcome && (
        <p role="status" className="text-moss">
          Loaded: {plural(file.outcome.added, 'new row')}, {formatCount(file.outcome.replaced)} replaced,{' '}
          {formatCount(file.outcome.rejected)} refused.{' '}
          {file.outcome.rejected > 0 && (
            <a className="text-pine underline" href={api(`intake/${file.id}/refused`)} download>
              Save the refused rows
            </a>
          )}
        </p>
      )}
      {file.state === 'failed' && <p className="text-rust">{file.error}</p>}
      {file.state === 'cancelled' && <p role="status">Cancelled. Nothing was loaded.</p>}
      {(file.state === 'waiting' || file.state === 'loading') && (
        <div role="status">
          <p>
            {file.state === 'waiting'
              ? 'Waits for the job process'
              : `Loading: ${formatCount(file.rowsRead)} of ${plural(reading.rows, 'row')}`}
          </p>
          <progress
            className="w-full"
            max={Math.max(1, reading.rows)}
            value={file.rowsRead}
            aria-label="Rows loaded"
          />
          <Button onClick={() => void call('DELETE')} disabled={asked}>
            Cancel
          </Button>
        </div>
      )}
      {['uploaded', 'cancelled', 'failed'].includes(file.state) &&
        (loadedBefore ? (
          <p role="status">
            This file was loaded before, as <b>{loadedBefore.name}</b>. Loading it again would change nothing.
          </p>
        ) : (
          <>
            <p className="text-soft">
              {daysThere > 0
                ? `${plural(daysThere, 'day')} of it hold data already: the same elements will be replaced. `
                : ''}
              All or nothing.
            </p>
            <Button
              tone="main"
              className="mt-1.5"
              disabled={asked || reading.error !== null || reading.rows === 0}
              onClick={() => void call('POST')}
            >
              Load {plural(reading.rows, 'row')}
            </Button>
          </>
        ))}
    </div>
  );
}
