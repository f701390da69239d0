'use client';

import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import type { ReportFileView } from '@/contracts/intake';
import { sayFailure } from '@/screens/tray/use-tray';
import { formatCount, formatDays, formatMoment } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { inMemory, useLayout, type Sort } from '@/ui/table/use-layout';
import { useRefresh } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { EmptyState } from '@/ui/said';

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
type Props = { files: ReportFileView[] | undefined; onOpen: (id: number) => void };

/** All files that were brought, newest first. */
export function History({ files, onOpen }: Props) {
  const columns = useHistoryColumns();
  const [sort, setSort] = useState<Sort | null>(null);
  const [find, setFind] = useState('');
  const [inHand, setInHand] = useState<number | null>(null);
  const found = useMemo(() => {
    const wanted = find.trim().toLowerCase();
    return (files ?? []).filter(({ name }) => name.toLowerCase().includes(wanted));
  }, [files, find]);
  const layout = useLayout('history', columns, found, sort);
  const { rows } = layout;
  if (!files) return <EmptyState>Looking …</EmptyState>;
  if (files.length === 0) {
    return (
      <p className="max-w-prose p-4">
        Nothing was brought yet. Drop files here, use <b>Add files</b>, or paste cells from a spreadsheet. If
        the stand-in platform is connected, <b>Fetch report</b> at the lower left brings its newest one. To
        look around first, stop Gate Post and run <code>./gatepost demo</code>.
      </p>
    );
  }
  const at = Math.max(
    0,
    rows.findIndex(({ id }) => id === inHand),
  );
  return (
    <>
      <p className="border-b border-line px-4 py-1 text-table text-soft">
        Files with{' '}
        <input
          aria-label="Files with this in their name"
          placeholder="anything"
          className="min-h-6 w-[150px] border-b border-dashed border-soft bg-transparent font-semibold text-ink placeholder:text-soft"
          value={find}
          onChange={(e) => setFind(e.target.value)}
        />{' '}
        in their name
      </p>
      <DataTable
        id="history"
        label="History of loads"
        {...inMemory(layout)}
        cursor={at}
        onCursor={(index) => setInHand(rows[index]?.id ?? null)}
        onOpen={(index) => rows[index] && onOpen(rows[index].id)}
        sort={sort}
        onSort={setSort}
        onPress={(target, index) => {
          if (!target.closest('[data-open]')) return false;
          onOpen(rows[index]!.id);
          return true;
        }}
        isMeasured
        saveAs="files that were brought"
        keysHelp="Arrows go through the files, Enter opens one."
        empty="No file has this in its name."
      />
    </>
  );
}

/** The columns of the files that were brought. */
function useHistoryColumns(): readonly Column<ReportFileView>[] {
  return useMemo(() => {
    const counted = (id: 'rows' | 'added' | 'replaced', name: string): Column<ReportFileView> => {
      const value = ({ outcome, rowsRead }: ReportFileView) =>
        outcome ? outcome[id] : id === 'rows' && rowsRead > 0 ? rowsRead : null;
      return {
        ...{ id, name, px: 56, isSortable: true, value },
        cell: (file) => (value(file) === null ? '' : formatCount(value(file))),
      };
    };
    const columns: Column<ReportFileView>[] = [
      {
        ...{ id: 'file', name: 'file', px: 150, share: 1, isText: true, isSortable: true },
        value: ({ name }) => name,
        cell: (file) => <FileName file={file} />,
      },
      {
        ...{ id: 'brought', name: 'brought', px: 86, isText: true, isSortable: true },
        value: ({ createdAt }) => createdAt,
        cell: ({ createdAt }) => <span className="text-soft">{formatMoment(createdAt)}</span>,
      },
      {
        ...{ id: 'state', name: 'state', px: 88, isText: true, isSortable: true },
        value: ({ state }) => STATES[state],
        cell: ({ state }) => (
          <span className={state === 'failed' ? 'text-rust' : state === 'loaded' ? 'text-moss' : ''}>
            {STATES[state]}
          </span>
        ),
      },
      {
        ...{ id: 'days', name: 'days', px: 108, isText: true, isSortable: true },
        value: ({ outcome }) => (outcome?.days ? `${outcome.days.from} to ${outcome.days.to}` : null),
        cell: ({ outcome }) => (outcome?.days ? formatDays(outcome.days) : ''),
      },
      counted('rows', 'rows'),
      counted('added', 'new'),
      counted('replaced', 'replaced'),
      {
        ...{ id: 'refused', name: 'refused', px: 56, isSortable: true },
        value: ({ outcome }) => outcome?.rejected ?? null,
        cell: (file) => <Refused file={file} />,
      },
      {
        ...{ id: 'back', name: 'take back', px: 64 },
        value: () => null,
        cell: (file) => <TakeBack file={file} />,
      },
    ];
    return columns;
  }, []);
}

function FileName({ file }: { file: ReportFileView }) {
  return (
    <span className="block whitespace-normal">
      <button
        type="button"
        tabIndex={-1} // Enter opens it, too
        data-open
        className="max-w-full text-left font-semibold break-words text-pine hover:underline"
      >
        {file.name}
      </button>
      {file.source === 'platform' && <span className="block text-soft">from the platform</span>}
      {file.kind !== 'search terms' && <span className="block text-soft">{file.kind}</span>}
      {file.isGone && <span className="block text-soft">the file itself was removed</span>}
      {file.error && <span className="block text-rust">{file.error}</span>}
    </span>
  );
}

function Refused({ file: { id, outcome } }: { file: ReportFileView }) {
  const { address } = useRoutes();
  if (!outcome) return null;
  if (outcome.rejected === 0) return '0';
  return (
    <a
      className="text-pine underline"
      href={address('GET intake/[file]/refused', { params: { file: id } })}
      download
    >
      {formatCount(outcome.rejected)}
    </a>
  );
}

function TakeBack({ file }: { file: ReportFileView }) {
  const { call } = useRoutes();
  const refresh = useRefresh();
  if (file.state !== 'loaded' || file.kind === 'structure') return null;
  async function takeBack() {
    try {
      await call('POST intake/[file]/back', { params: { file: file.id } });
      toast(`${file.name} is being taken back.${file.isGone ? '' : ' It can be loaded again.'}`);
      await refresh();
    } catch (error) {
      sayFailure(error);
    }
  }
  return (
    <button
      type="button"
      className="min-h-6 text-pine underline-offset-2 hover:underline"
      aria-label={`Take back ${file.name}`}
      onClick={() => void takeBack()}
    >
      Take back
    </button>
  );
}
