'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import Link from 'next/link';
import { useAccount } from '@/screens/frame/account-context';
import { useRoutes } from '@/screens/frame/data/routes';
import { ErrorText } from '@/ui/said';
import { Select } from '@/ui/select';
import { GatherButton, type WayProps } from './way';

/** Keyword ideas of a file that Intake has read. */
export function FileForm({ onGather, isGathering }: WayProps) {
  const { query } = useRoutes();
  const { slug } = useAccount().summary;
  const { data, error } = useQuery(query('GET intake'));
  const [chosen, setChosen] = useState<string>();
  const files = data?.files.filter(({ kind, state }) => kind === 'keyword ideas' && state === 'loaded') ?? [];
  const id = chosen ?? (files[0] && String(files[0].id));
  const toIntake = (
    <Link className="text-pine underline" href={`/${slug}/intake`}>
      Bring it to Intake
    </Link>
  );
  return (
    <>
      <ErrorText error={error} />
      {id === undefined ? (
        <p>
          No file of keyword ideas is loaded. {toIntake}: it reads CSV and XLSX, and asks what it does not
          know.
        </p>
      ) : (
        <>
          <p>
            Ideas of the file{' '}
            <Select
              look="word"
              label="File"
              value={id}
              options={files.map((file) => ({ key: String(file.id), says: file.name }))}
              onChange={setChosen}
            />
            . Another file? {toIntake}.
          </p>
          <GatherButton
            isGathering={isGathering}
            onPress={() => onGather({ kind: 'file', file: Number(id) })}
          />
        </>
      )}
    </>
  );
}
