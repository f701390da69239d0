'use client';

import { useQuery } from '@tanstack/react-query';
import { counted } from '@/core';
import { useRoutes } from '@/screens/frame/data/routes';
import { useTrayActions } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { formatCount } from '@/ui/format';
import { ErrorText } from '@/ui/said';

const SHOWN = 50;

/** What a sheet of duplicates says, to be looked at before it goes into the tray. */
export function DecisionsDialog({ file, onClose }: { file: File; onClose: () => void }) {
  const { call } = useRoutes();
  const { draft } = useTrayActions();
  const { data, error } = useQuery({
    queryKey: ['sheet of duplicates', file.name, file.lastModified, file.size],
    queryFn: () =>
      call('POST untangle/duplicates/read-sheet', { query: { size: String(file.size) }, body: file }),
    retry: false,
  });
  async function put() {
    const changes = data!.changes.map(({ change, why, knot }) => ({ change, why, knot }));
    onClose();
    await draft(changes, { said: `${counted(changes.length, 'decision')} of ${file.name}` });
  }
  return (
    <DialogFrame title={`What ${file.name} says`} onClose={onClose}>
      <ErrorText error={error} />
      {!data && !error && <p className="text-table text-soft">It is being read…</p>}
      {data && (
        <>
          <p className="text-table">
            <b>{counted(data.changes.length, 'keyword')}</b> to be paused or removed, {formatCount(data.kept)}{' '}
            to be kept, {formatCount(data.undecided)} left undecided.
          </p>
          <ul className="max-h-[34vh] overflow-y-auto text-table" tabIndex={0} aria-label="Decisions">
            {data.changes.slice(0, SHOWN).map(({ said }) => (
              <li key={said} className="border-b border-line py-0.5">
                {said}
              </li>
            ))}
            {data.changes.length > SHOWN && <li>and {formatCount(data.changes.length - SHOWN)} more</li>}
          </ul>
          {data.unclear.length > 0 && (
            <section className="text-table text-rust">
              <h3 className="font-semibold">
                {counted(data.unclear.length, 'row')} can not be read; nothing is done about{' '}
                {data.unclear.length === 1 ? 'it' : 'them'}
              </h3>
              <ul
                className="max-h-[20vh] overflow-y-auto"
                tabIndex={0}
                aria-label="Rows that can not be read"
              >
                {data.unclear.slice(0, SHOWN).map(({ line, why }) => (
                  <li key={line}>
                    Row {line}: {why}.
                  </li>
                ))}
                {data.unclear.length > SHOWN && <li>and {formatCount(data.unclear.length - SHOWN)} more</li>}
              </ul>
            </section>
          )}
        </>
      )}
      <div className="mt-1 flex gap-2">
        <Button tone="main" disabled={!data || data.changes.length === 0} onClick={() => void put()}>
          Put {formatCount(data?.changes.length ?? 0)} in the tray
        </Button>
        <Button onClick={onClose}>Not now</Button>
      </div>
    </DialogFrame>
  );
}
