'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { counted } from '@/core';
import { formatCount, formatDay } from '@/ui/format';
import { sayFailure } from '@/screens/tray/use-tray';
import type { ReportFileView } from '@/contracts/intake';
import { useRoutes } from '@/screens/frame/data/routes';
import { PlatformFaults } from './platform-faults';
import { useRefresh } from '@/screens/frame/data/refresh';
import { PARTS } from '@/contracts/routes';

/** The stand-in platform's clock, and its newest report. */
export function PlatformClock({ day }: { day: string }) {
  const { call } = useRoutes();
  const router = useRouter();
  const refresh = useRefresh();
  const [busy, setBusy] = useState<string | null>(null);
  const [loading, setLoading] = useState<ReportFileView | null>(null);

  async function run(what: string, work: () => Promise<string>) {
    setBusy(what);
    try {
      toast(await work());
      router.refresh();
      await refresh(PARTS);
    } catch (error) {
      toast.error(error instanceof Error ? error.message : 'It did not work.');
    } finally {
      setBusy(null);
    }
  }

  const move = (days: number) =>
    run(days === 1 ? 'A day passes' : 'A week passes', async () => {
      const { today } = await call('POST platform/clock', { body: { days } });
      return `It is ${formatDay(today)} on the platform now. Fetch its report to see these days.`;
    });

  const fetchReport = () =>
    run('Fetching the report', async () => {
      const { fileId } = await call('POST platform/report');
      if (fileId === null) return 'The platform has nothing new: its reports are two days late.';
      const list = async () => (await call('GET intake')).files;
      return describe(await waitForLoad(list, fileId, setLoading));
    }).finally(() => setLoading(null));

  const cancel = async (fileId: number) => {
    await call('DELETE intake/[file]/load', { params: { file: fileId } }).catch(sayFailure);
  };

  const button =
    'rounded border border-line bg-sheet px-1.5 min-h-6 text-ink hover:border-soft disabled:opacity-50';
  return (
    <div className="mt-2 border-t border-line pt-2">
      <p>
        Stand-in platform:
        <br />
        {formatDay(day, true)}
      </p>
      <div className="mt-1 flex flex-wrap gap-1">
        <button type="button" className={button} disabled={busy !== null} onClick={() => void move(1)}>
          + 1 day
        </button>
        <button type="button" className={button} disabled={busy !== null} onClick={() => void move(7)}>
          + 1 week
        </button>
        <button type="button" className={button} disabled={busy !== null} onClick={() => void fetchReport()}>
          Fetch report
        </button>
      </div>
      <PlatformFaults />
      <p role="status" className="mt-1 min-h-4">
        {busy && `${busy} …`} {loading && `${formatCount(loading.rowsRead)} rows`}
      </p>
      {loading && (
        <button type="button" className={button} onClick={() => void cancel(loading.id)}>
          Cancel
        </button>
      )}
    </div>
  );
}

/** @param tell is told how far the load has come */
async function waitForLoad(
  list: () => Promise<ReportFileView[]>,
  fileId: number,
  tell: (file: ReportFileView) => void,
): Promise<ReportFileView> {
  for (;;) {
    const file = (await list()).find((f) => f.id === fileId);
    if (file && !['waiting', 'loading'].includes(file.state)) return file;
    if (file) tell(file);
    await new Promise((resolve) => setTimeout(resolve, 400));
  }
}

function describe({ outcome, error, state }: ReportFileView): string {
  if (state === 'cancelled') return 'Loading was cancelled. Nothing of the report was stored.';
  if (!outcome) return error ?? 'The report was not loaded.';
  const days = outcome.days ? `, days to ${formatDay(outcome.days.to)}` : '';
  return `Report loaded: ${counted(outcome.added, 'new row')}, ${formatCount(outcome.replaced)} replaced${days}.`;
}
