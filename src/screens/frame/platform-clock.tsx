'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { formatDay } from '@/ui/format';
import type { ReportFileView } from '@/contracts/intake';
import { useRoutes } from '@/screens/frame/data/routes';
import { useRefresh } from '@/screens/frame/data/refresh';
import { PARTS } from '@/contracts/routes';

/** The stand-in platform's clock, and its newest report. */
export function PlatformClock({ day }: { day: string }) {
  const { call } = useRoutes();
  const router = useRouter();
  const refresh = useRefresh();
  const [busy, setBusy] = useState<string | null>(null);

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
      return describe(await waitForLoad(async () => (await call('GET intake')).files, fileId));
    });

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
      <p role="status" className="mt-1 min-h-4">
        {busy && `${busy} …`}
      </p>
    </div>
  );
}

async function waitForLoad(list: () => Promise<ReportFileView[]>, fileId: number): Promise<ReportFileView> {
  for (;;) {
    const file = (await list()).find((f) => f.id === fileId);
    if (file && !['waiting', 'loading'].includes(file.state)) return file;
    await new Promise((resolve) => setTimeout(resolve, 400));
  }
}

function describe({ outcome, error }: ReportFileView): string {
  if (!outcome) return error ?? 'The report was not loaded.';
  const days = outcome.days ? `, days to ${formatDay(outcome.days.to)}` : '';
  return `Report loaded: ${outcome.added.toLocaleString('en')} new rows, ${outcome.replaced.toLocaleString('en')} replaced${days}.`;
}
