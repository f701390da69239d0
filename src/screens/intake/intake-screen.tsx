'use client';

import { useQuery } from '@tanstack/react-query';
import { parseAsInteger, useQueryState } from 'nuqs';
import { useRef, useState } from 'react';
import type { ReportFileView } from '@/contracts/intake';
import { InHand } from '@/screens/frame/in-hand';
import { Button } from '@/ui/button';
import { DaysPanel } from './reading/days-panel';
import { History } from './history';
import { PasteDialog } from './paste-dialog';
import { ReadingView } from './reading/reading-view';
import { formatSize } from './reading/reading-state';
import { Standing } from './standing';
import { useBring } from './use-bring';
import { useRoutes } from '@/screens/frame/data/routes';

/** Bringing reports in: each file's reading, its refused rows, and the history of loads. */
export function IntakeScreen() {
  const [fileId, setFileId] = useQueryState('file', parseAsInteger);
  const [over, setOver] = useState(false);
  const [pasting, setPasting] = useState(false);
  const { query } = useRoutes();
  const { data, refetch } = useQuery({
    ...query('GET intake'),
    refetchInterval: ({ state }) => (state.data?.files.some(isBusy) ? 500 : false),
  });
  const { bring, bringText, busy } = useBring((files) => {
    void refetch().then(() => setFileId(files.length === 1 ? files[0]!.id : null));
  });

  const file = data?.files.find((f) => f.id === fileId);
  return (
    <div
      className={`flex min-h-0 flex-1 flex-col ${over ? 'outline-2 -outline-offset-4 outline-pine outline-dashed' : ''}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        void bring([...event.dataTransfer.files]);
      }}
    >
      <header className="flex items-center gap-3 border-b border-line bg-paper px-4 py-2.5">
        <h1 className="font-title text-title font-bold">Intake</h1>
        <p className="min-w-0 flex-1 truncate text-soft" role="status">
          {busy !== null ? `Bringing ${busy} …` : file ? <Named file={file} /> : INVITATION}
        </p>
        {file && <Button onClick={() => void setFileId(null)}>History</Button>}
        <Button onClick={() => setPasting(true)}>Paste</Button>
        <FilePicker onPick={(picked) => void bring(picked)} />
      </header>
      {file ? (
        <ReadingView key={file.id} file={file} />
      ) : (
        <History files={data?.files} onOpen={(id) => void setFileId(id)} />
      )}
      {!file && data && (
        <InHand>
          <p className="mt-1 text-table text-soft">
            A file is read and shown before anything is stored. The same file twice changes nothing; the same
            day and element again replaces. Files of up to {formatSize(data.largestFile)} are taken.
          </p>
          <DaysPanel daysThere={data.daysThere} />
          <Standing view={data} />
        </InHand>
      )}
      {pasting && <PasteDialog onPaste={bringText} onClose={() => setPasting(false)} />}
    </div>
  );
}

const INVITATION = 'Drop reports here: CSV, TSV, XLSX, gzip or ZIP, columns in any order';

function Named({ file }: { file: ReportFileView }) {
  return (
    <>
      Reading <b className="text-ink">{file.name}</b>, {formatSize(file.sizeBytes)}
      {file.state === 'uploaded' && ', nothing stored yet'}
    </>
  );
}

export function isBusy({ state }: ReportFileView): boolean {
  return state === 'waiting' || state === 'loading' || state === 'taking back';
}

function FilePicker({ onPick }: { onPick: (files: File[]) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        multiple
        accept=".csv,.tsv,.tab,.txt,.xlsx,.gz,.zip"
        aria-label="Report files"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const picked = [...(event.target.files ?? [])];
          event.target.value = '';
          if (picked.length > 0) onPick(picked);
        }}
      />
      <Button tone="main" onClick={() => input.current?.click()}>
        Add files
      </Button>
    </>
  );
}
