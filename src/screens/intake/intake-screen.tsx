'use client';

import { useQuery } from '@tanstack/react-query';
import { parseAsInteger, useQueryState } from 'nuqs';
import { useRef, useState } from 'react';
import type { ReportFileView } from '@/contracts/intake';
import { useAccount } from '@/screens/frame/account-context';
import { InHand } from '@/screens/frame/in-hand';
import { sayFailure } from '@/screens/tray/use-tray';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { History } from './history';
import { ReadingView } from './reading-view';

/** Bringing reports in: each file's reading, its refused rows, and the history of loads. */
export function IntakeScreen() {
  const { summary, api } = useAccount();
  const [fileId, setFileId] = useQueryState('file', parseAsInteger);
  const [over, setOver] = useState(false);
  const { data, refetch } = useQuery({
    queryKey: ['intake', summary.slug],
    queryFn: () => ask<{ files: ReportFileView[] }>(api('intake')),
    refetchInterval: ({ state }) => (state.data?.files.some(isBusy) ? 500 : false),
  });

  async function bring(file: File) {
    try {
      const answer = await ask<{ file: ReportFileView }>(
        api(`intake?name=${encodeURIComponent(file.name)}`),
        { method: 'PUT', body: file },
      );
      await refetch();
      await setFileId(answer.file.id);
    } catch (error) {
      sayFailure(error);
    }
  }

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
        const [dropped] = event.dataTransfer.files;
        if (dropped) void bring(dropped);
      }}
    >
      <header className="flex items-center gap-4 border-b border-line bg-paper px-4 py-2.5">
        <h1 className="font-title text-[20px] font-bold">Intake</h1>
        <p className="text-soft">
          {file ? (
            <>
              Reading <b className="text-ink">{file.name}</b>
              {file.state === 'uploaded' && ', nothing stored yet'}
            </>
          ) : (
            'Drop a search term report here: CSV or TSV, columns in any order'
          )}
        </p>
        <span className="ml-auto flex gap-2">
          {file && <Button onClick={() => void setFileId(null)}>History</Button>}
          <FilePicker onPick={(picked) => void bring(picked)} />
        </span>
      </header>
      {file ? (
        <ReadingView key={file.id} file={file} />
      ) : (
        <History files={data?.files} onOpen={(id) => void setFileId(id)} />
      )}
      {!file && (
        <InHand>
          <p className="mt-1 text-[13px] text-soft">
            A file is read and shown before anything is stored. The same file twice changes nothing; the same
            day and element again replaces.
          </p>
        </InHand>
      )}
    </div>
  );
}

export function isBusy(file: ReportFileView): boolean {
  return file.state === 'waiting' || file.state === 'loading';
}

function FilePicker({ onPick }: { onPick: (file: File) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".csv,.tsv,.txt,text/csv,text/tab-separated-values"
        aria-label="Report file"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const [picked] = event.target.files ?? [];
          if (picked) onPick(picked);
          event.target.value = '';
        }}
      />
      <Button tone="main" onClick={() => input.current?.click()}>
        Add a file
      </Button>
    </>
  );
}
