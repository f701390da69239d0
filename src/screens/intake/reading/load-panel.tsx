'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import type { ReadingAnswer, ReportFileView } from '@/contracts/intake';
import { sayFailure } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { formatCount } from '@/ui/format';
import { KeepRecipe } from './keep-recipe';
import { timeLeft } from './reading-state';
import { useRoutes } from '@/screens/frame/data/routes';
import { useRefresh } from '@/screens/frame/data/refresh';
import { counted } from '@/core';

type Props = {
  file: ReportFileView;
  answer: ReadingAnswer;
  /** the answer is of earlier decisions: nothing is loaded before it is seen */
  isStale: boolean;
  onLoaded: () => void;
};

/** Loading what was read: all or nothing, with progress and a way to cancel. */
export function LoadPanel({ file, answer, isStale, onLoaded }: Props) {
  const { call } = useRoutes();
  const router = useRouter();
  const refresh = useRefresh();
  const params = { file: file.id };
  const [asked, setAsked] = useState(false);
  const was = useRef(file.state);
  useEffect(() => {
    if (was.current !== file.state && (file.state === 'loaded' || file.state === 'taken back')) {
      onLoaded();
      router.refresh();
    }
    was.current = file.state;
  }, [file.state, onLoaded, router]);

  async function run(work: () => Promise<unknown>) {
    setAsked(true);
    try {
      await work();
      await refresh();
    } catch (error) {
      sayFailure(error);
    } finally {
      setAsked(false);
    }
  }

  const total = answer.whole === null ? answer.reading.rows : null;
  return (
    <div className="mt-3 border-t border-line pt-2 text-table" data-testid="load-panel">
      {file.state === 'loaded' && (
        <Loaded
          file={file}
          busy={asked}
          onBack={() => void run(() => call('POST intake/[file]/back', { params }))}
        />
      )}
      {file.state === 'taking back' && <p role="status">Is being taken back …</p>}
      {file.state === 'taken back' && <p role="status">Taken back. It can be loaded again.</p>}
      {file.state === 'failed' && <p className="text-rust">{file.error}</p>}
      {file.state === 'cancelled' && <p role="status">Cancelled. Nothing was loaded.</p>}
      {(file.state === 'waiting' || file.state === 'loading') && (
        <Loading
          file={file}
          total={total}
          busy={asked}
          onCancel={() => void run(() => call('DELETE intake/[file]/load', { params }))}
        />
      )}
      {['uploaded', 'cancelled', 'failed', 'taken back'].includes(file.state) && (
        <Ready
          answer={answer}
          busy={asked || isStale}
          onLoad={() => void run(() => call('POST intake/[file]/load', { params, body: answer.decisions }))}
        />
      )}
    </div>
  );
}

function Loaded({ file, busy, onBack }: { file: ReportFileView; busy: boolean; onBack: () => void }) {
  const { address } = useRoutes();
  const { outcome } = file;
  if (!outcome) return null;
  return (
    <>
      <p role="status" className="text-moss">
        Loaded: {counted(outcome.added, 'new row')}, {formatCount(outcome.replaced)} replaced,{' '}
        {formatCount(outcome.rejected)} refused.
      </p>
      {outcome.said && outcome.said.compared > 0 && (
        <p className={outcome.said.there === outcome.said.compared ? 'text-moss' : 'text-rust'}>
          Of {counted(outcome.said.compared, 'change')} that {outcome.said.compared === 1 ? 'was' : 'were'}{' '}
          said to be done, {formatCount(outcome.said.there)} {outcome.said.there === 1 ? 'is' : 'are'} there.
          {outcome.said.there < outcome.said.compared && ' The Ledger names the others.'}
        </p>
      )}
      {outcome.rejected > 0 && (
        <a
          className="block text-pine underline"
          href={address('GET intake/[file]/refused', { params: { file: file.id } })}
          download
        >
          Save the refused rows, to mend them and bring them again
        </a>
      )}
      {file.kind !== 'structure' && (
        <Button className="mt-1.5" disabled={busy} onClick={onBack}>
          Take back this load
        </Button>
      )}
    </>
  );
}

function Loading({
  file,
  total,
  busy,
  onCancel,
}: {
  file: ReportFileView;
  total: number | null;
  busy: boolean;
  onCancel: () => void;
}) {
  const left = timeLeft(file.rowsRead, total, file.rowsPerSecond);
  const of = total === null ? '' : ` of ${formatCount(total)}`;
  return (
    <div role="status">
      <p>
        {file.state === 'waiting'
          ? 'Waits for the job process'
          : `Loading: ${formatCount(file.rowsRead)}${of} rows`}
        {file.rowsPerSecond !== null && `, ${formatCount(file.rowsPerSecond)} a second`}
        {left !== '' && `, ${left}`}
      </p>
      <progress
        className="w-full"
        max={Math.max(1, total ?? file.rowsRead * 2)}
        value={file.rowsRead}
        aria-label="Rows loaded"
      />
      <Button onClick={onCancel} disabled={busy}>
        Cancel
      </Button>
    </div>
  );
}

function Ready({ answer, busy, onLoad }: { answer: ReadingAnswer; busy: boolean; onLoad: () => void }) {
  const { reading, loadedBefore, obstacle, whole } = answer;
  if (loadedBefore) {
    return (
      <p role="status">
        This file was loaded before, as <b>{loadedBefore.name}</b>. Loading it again would change nothing.
      </p>
    );
  }
  // A question stands above already, and a file that is no table is said beside.
  const isSaid = reading.questions.length > 0 || reading.error !== null;
  return (
    <>
      {obstacle !== null && !isSaid && <p className="text-rust">{obstacle}</p>}
      <p className="text-soft">All or nothing. Can be taken back as a whole.</p>
      <KeepRecipe answer={answer} />
      <Button tone="main" className="mt-1.5" disabled={busy || obstacle !== null} onClick={onLoad}>
        {whole !== null
          ? 'Load the whole file'
          : reading.rows > 0
            ? `Load ${counted(reading.rows, 'row')}`
            : 'Load'}
      </Button>
    </>
  );
}
