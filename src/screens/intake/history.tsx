'use client';

import { toast } from 'sonner';
import type { ReportFileView } from '@/contracts/intake';
import { sayFailure } from '@/screens/tray/use-tray';
import { formatCount, formatDays } from '@/ui/format';
import { useRefresh } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';

const STATES: Record<ReportFileView['state'], string> = {
  uploaded: 'not loaded',
  waiting: 'waits',
  loading: 'loading',
  loaded: 'loaded',
  cancelled: 'cancelled',
  failed: 'failed',
  'taking back': 'being taken back',
  'taken back': 'taken back',
};
const HEADS = ['file', 'brought', 'state', 'days', 'rows', 'new', 'replaced', 'refused', ''];

type Props = { files: ReportFileView[] | undefined; onOpen: (id: number) => void };

/** All files that were brought, newest first. */
export function History({ files, onOpen }: Props) {
  if (!files) return <p className="p-4 text-soft">Looking …</p>;
  if (files.length === 0) {
    return (
      <p className="max-w-prose p-4">
        Nothing was brought yet. Drop files here, use <b>Add files</b>, or paste cells from a spreadsheet. If
        the stand-in platform is connected, <b>Fetch report</b> at the lower left brings its newest one. To
        look around first, stop Gate Post and run <code>./gatepost demo</code>.
      </p>
    );
  }
  return (
    <div className="min-h-0 flex-1 overflow-auto" tabIndex={0} role="group" aria-label="History of loads">
      <table className="w-full text-table">
        <caption className="sr-only">History of loads</caption>
        <thead className="text-left text-small text-soft">
          <tr className="border-b border-line">
            {HEADS.map((name, i) => (
              <th key={name} className={`px-1.5 py-1 font-normal first:pl-4 ${i > 3 ? 'text-right' : ''}`}>
                {name || <span className="sr-only">take back</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {files.map((file) => (
            <HistoryRow key={file.id} file={file} onOpen={() => onOpen(file.id)} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function HistoryRow({ file, onOpen }: { file: ReportFileView; onOpen: () => void }) {
  const { address, call } = useRoutes();
  const refresh = useRefresh();
  const { outcome } = file;
  async function takeBack() {
    try {
      await call('POST intake/[file]/back', { params: { file: file.id } });
      toast(`${file.name} is being taken back. It can be loaded again.`);
      await refresh();
    } catch (error) {
      sayFailure(error);
    }
  }
  return (
    <tr className="border-b border-line align-top">
      <td className="max-w-56 px-1.5 py-1.5 pl-4">
        <button
          type="button"
          className="max-w-full truncate text-left font-semibold text-pine hover:underline"
          title={file.name}
          onClick={onOpen}
        >
          {file.name}
        </button>
        {file.source === 'platform' && <span className="block text-soft">from the platform</span>}
        {file.kind !== 'search terms' && <span className="block text-soft">{file.kind}</span>}
        {file.error && <span className="block text-rust">{file.error}</span>}
      </td>
      <td className="px-1.5 py-1.5 whitespace-nowrap text-soft">
        {new Date(file.createdAt).toLocaleString('en-GB', {
          day: 'numeric',
          month: 'short',
          hour: '2-digit',
          minute: '2-digit',
        })}
      </td>
      <td
        className={`px-1.5 py-1.5 ${file.state === 'failed' ? 'text-rust' : file.state === 'loaded' ? 'text-moss' : ''}`}
      >
        {STATES[file.state]}
      </td>
      <td className="px-1.5 py-1.5 whitespace-nowrap">{outcome?.days ? formatDays(outcome.days) : ''}</td>
      {(['rows', 'added', 'replaced'] as const).map((name) => (
        <td key={name} className="px-1.5 py-1.5 text-right">
          {outcome
            ? formatCount(outcome[name])
            : name === 'rows' && file.rowsRead > 0
              ? formatCount(file.rowsRead)
              : ''}
        </td>
      ))}
      <td className="px-1.5 py-1.5 text-right">
        {outcome && outcome.rejected > 0 ? (
          <a
            className="text-pine underline"
            href={address('GET intake/[file]/refused', { params: { file: file.id } })}
            download
          >
            {formatCount(outcome.rejected)}
          </a>
        ) : (
          outcome && '0'
        )}
      </td>
      <td className="px-1.5 py-1 text-right whitespace-nowrap">
        {file.state === 'loaded' && file.kind !== 'structure' && (
          <button
            type="button"
            className="min-h-6 text-pine underline-offset-2 hover:underline"
            aria-label={`Take back ${file.name}`}
            onClick={() => void takeBack()}
          >
            Take back
          </button>
        )}
      </td>
    </tr>
  );
}
