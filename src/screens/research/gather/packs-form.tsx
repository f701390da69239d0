'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { counted } from '@/core';
import { useRefresh } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { ErrorText } from '@/ui/said';
import type { WayProps } from './way';

/** Ready lists by topic: those that ship, and those that people add as files. */
export function PacksForm({ onGather, isGathering }: WayProps) {
  const { query, call, address } = useRoutes();
  const refresh = useRefresh();
  const { data, error } = useQuery(query('GET research/packs'));
  const [failure, setFailure] = useState<Error | null>(null);
  const doing = async (work: () => Promise<unknown>) => {
    setFailure(null);
    try {
      await work();
      await refresh();
    } catch (caught) {
      setFailure(caught as Error);
    }
  };
  return (
    <>
      <p className="text-soft">
        Each entry is checked against the account: what it would have stopped, and what it hits. What hits
        something is off at first.
      </p>
      <ErrorText error={error ?? failure} />
      <ul aria-label="Starter packs" className="max-h-72 overflow-y-auto border-y border-line" tabIndex={0}>
        {data?.packs.map(({ key, name, about, entries, texts, addedBy }) => (
          <li key={key} className="flex flex-wrap items-center gap-x-2 border-b border-line py-1">
            <span className="min-w-0 flex-1">
              <b>{name}</b>{' '}
              <span className="text-soft">
                {counted(entries, 'entry', 'entries')}, {counted(texts, 'text')}
                {addedBy !== null && `, added by ${addedBy}`}
              </span>
              <span className="block text-small text-soft">{about}</span>
            </span>
            <a
              className="min-h-6 text-pine underline"
              href={address('GET research/packs/file', { query: { pack: key } })}
              download
              aria-label={`Save ${name} as a file`}
            >
              File
            </a>
            {addedBy !== null && (
              <Button
                aria-label={`Take the pack ${name} out`}
                onClick={() => void doing(() => call('DELETE research/packs', { body: { pack: key } }))}
              >
                Take out
              </Button>
            )}
            <Button
              aria-label={`Gather ${name}`}
              disabled={isGathering}
              onClick={() => onGather({ kind: 'pack', pack: key })}
            >
              Gather
            </Button>
          </li>
        ))}
      </ul>
      <label className="flex flex-wrap items-center gap-2">
        Add a pack of your own, for all who work on this account
        <input
          type="file"
          accept=".json,application/json"
          aria-label="File of a pack"
          className="text-small"
          onChange={({ target }) => {
            const file = target.files?.[0];
            if (file)
              void doing(async () => call('POST research/packs', { body: { text: await file.text() } }));
            target.value = '';
          }}
        />
      </label>
    </>
  );
}
