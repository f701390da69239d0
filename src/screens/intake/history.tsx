'use client';

import type { ReportFileView } from '@/contracts/intake';
import { useAccount } from '@/screens/frame/account-context';
import { formatCount, formatDays } from '@/ui/format';

const STATES: Record<ReportFileView['state'], string> = {
  uploaded: 'not loaded',
  waiting: 'waits',
  loading: 'loading',
  loaded: 'loaded',
  cancelled: 'cancelled',
  failed: 'failed',
};

/** All files that were brought, newest first. */
export function History({
  files,
  onOpen,
}: {
  files: ReportFileView[] | undefined;
  onOpen: (id: number) => void;
}) {
  const { api } = useAccount();
  if (!files) return <p className="p-4 text-soft">Looking …</p>;
  if (files.length === 0) {
    return (
      <p className="max-w-prose p-4">
        Nothing was brought yet. Drop a file here, or use <b>Add a file</b>. If the stand-in platform is
        connected, <b>Fetch report</b> at the lower left brings its newest one. To look around first, stop
        Gate Post and run <code>./gatepost demo</code>.
      </p>
    );
  }
  return (
    <div className="min-h-0 flex-1 overflow-y-auto" tabIndex={0} role="group" aria-label="History of loads">
      <table className="w-full text-[13px]">
        <caption className="sr-only">History of loads</caption>
        <thead className="text-left text-[12px] text-soft">
          <tr className="border-b border-line">
            {['file', 'brought', 'state', 'days', 'rows', 'new', 'replaced', 'refused'].map((name, i) => (
              <th key={name} className={`px-3 py-1 font-normal ${i > 3 ? 'text-right' : ''}`}>
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {files.map((f) => (
            <tr key={f.id} className="border-b border-line">
              <td className="max-w-64 truncate px-3 py-1.5">
                <button
                  type="button"
                  className="font-semibold text-pine hover:underline"
                  onClick={() => onOpen(f.id)}
                >
                  {f.name}
                </button>
                {f.source === 'platform' && <span className="text-soft"> from the platform</span>}
                {f.error && <span className="block text-rust">{f.error}</span>}
              </td>
              <td className="px-3 whitespace-nowrap text-soft">
                {new Date(f.createdAt).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
              </td>
              <td
                className={`px-3 ${f.state === 'failed' ? 'text-rust' : f.state === 'loaded' ? 'text-moss' : ''}`}
              >
                {STATES[f.state]}
              </td>
              <td className="px-3 whitespace-nowrap">{f.outcome?.days ? formatDays(f.outcome.days) : ''}</td>
              {(['rows', 'added', 'replaced'] as const).map((name) => (
                <td key={name} className="px-3 text-right">
                  {f.outcome
                    ? formatCount(f.outcome[name])
                    : name === 'rows' && f.rowsRead > 0
                      ? formatCount(f.rowsRead)
                      : ''}
                </td>
              ))}
              <td className="px-3 text-right">
                {f.outcome && f.outcome.rejected > 0 ? (
                  <a className="text-pine underline" href={api(`intake/${f.id}/refused`)} download>
                    {formatCount(f.outcome.rejected)}
                  </a>
                ) : (
                  f.outcome && '0'
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
