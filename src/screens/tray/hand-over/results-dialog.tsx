'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { counted } from '@/core';
import type { ResultsRead } from '@/contracts/sheets';
import { useRoutes } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { ErrorText } from '@/ui/said';
import { Select } from '@/ui/select';
import { useTrayActions } from '../use-tray';

type Props = { setId: number; file: File; onClose: () => void };

/** What a result sheet says of a tray, to be looked at before it is stored. */
export function ResultsDialog({ setId, file, onClose }: Props) {
  const { call } = useRoutes();
  const { storeResults } = useTrayActions();
  const [chosen, setChosen] = useState<{ result?: string; reason?: string }>({});
  const { data, error } = useQuery({
    queryKey: ['result sheet', setId, file.name, file.lastModified, file.size, chosen],
    queryFn: () =>
      call('POST tray/sent/[set]/read-results', { params: { set: setId }, query: chosen, body: file }),
    placeholderData: (before) => before,
    retry: false,
  });
  const store = async () => {
    onClose();
    await storeResults(setId, data!.results);
  };
  return (
    <DialogFrame title={`What ${file.name} says`} width={720} onClose={onClose}>
      <ErrorText error={error} />
      {data && (
        <>
          <p className="text-table">
            Read by the columns {data.recipe === 'as usual' ? 'as usual' : `“${data.recipe}”`}. What became of
            a change stands in{' '}
            <ColumnChoice
              label="Column with the result"
              headings={data.headings}
              value={data.resultColumn}
              onChange={(result) => setChosen({ ...chosen, result })}
            />
            , why in{' '}
            <ColumnChoice
              label="Column with the reason"
              headings={data.headings}
              value={data.reasonColumn}
              onChange={(reason) => setChosen({ ...chosen, reason })}
            />
            .
          </p>
          <Said data={data} />
          <div className="mt-1 flex gap-2">
            <Button tone="main" disabled={data.results.length === 0} onClick={() => void store()}>
              {sayStore(data)}
            </Button>
            <Button onClick={onClose}>Not now</Button>
          </div>
        </>
      )}
    </DialogFrame>
  );
}

function sayStore({ results }: ResultsRead): string {
  const failed = results.filter((one) => one.failed !== null).length;
  const done = results.length - failed;
  if (results.length === 0) return 'Nothing to store';
  if (failed === 0) return `${counted(done, 'change')} carried out`;
  return `${done} carried out, ${failed} back in the tray`;
}

function Said({ data: { results, unclear, unnamed } }: { data: ResultsRead }) {
  const failed = results.flatMap(({ id, said, failed: why }) => (why === null ? [] : [{ id, said, why }]));
  const done = results.length - failed.length;
  return (
    <div
      className="flex max-h-[44vh] flex-col gap-2 overflow-y-auto text-table"
      tabIndex={0}
      role="group"
      aria-label="Results"
    >
      <p>
        <b>{counted(done, 'change')}</b> carried out. {done === 1 ? 'It counts' : 'They count'} as in force,
        said to be done, until a structure file shows it.
      </p>
      {failed.length > 0 && (
        <section>
          <p>
            <b>{counted(failed.length, 'change')}</b> not carried out, to be back in the tray with the reason:
          </p>
          <ul className="list-disc pl-4">
            {failed.slice(0, SHOWN).map(({ id, said, why }) => (
              <li key={id}>
                {said}: <span className="text-rust">{why}</span>
              </li>
            ))}
            <More all={failed.length} />
          </ul>
        </section>
      )}
      {unclear.length > 0 && (
        <section>
          <p>
            <b>{counted(unclear.length, 'row')}</b> not understood;{' '}
            {unclear.length === 1 ? 'it says' : 'they say'} nothing, and the changes go on waiting:
          </p>
          <ul className="list-disc pl-4">
            {unclear.slice(0, SHOWN).map(({ line, why }) => (
              <li key={`${line} ${why}`}>
                line {line}: {why}
              </li>
            ))}
            <More all={unclear.length} />
          </ul>
        </section>
      )}
      {unnamed.length > 0 && (
        <section>
          <p>
            <b>{counted(unnamed.length, 'change')}</b> of which the sheet says nothing;{' '}
            {unnamed.length === 1 ? 'it goes' : 'they go'} on waiting:
          </p>
          <ul className="list-disc pl-4">
            {unnamed.slice(0, SHOWN).map(({ id, said }) => (
              <li key={id}>{said}</li>
            ))}
            <More all={unnamed.length} />
          </ul>
        </section>
      )}
    </div>
  );
}

const SHOWN = 50;

function More({ all }: { all: number }) {
  return all > SHOWN ? <li>and {all - SHOWN} more</li> : null;
}

function ColumnChoice({
  label,
  headings,
  value,
  onChange,
}: {
  label: string;
  headings: readonly string[];
  value: number | null;
  onChange: (column: string) => void;
}) {
  const options = headings.map((heading, at) => ({ key: String(at), says: heading || `column ${at + 1}` }));
  return (
    <Select
      {...{ label, options, onChange }}
      look="word"
      placeholder="no column"
      value={value === null ? null : String(value)}
    />
  );
}
