'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useRoutes } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { TextField } from '@/ui/form';
import { ErrorText } from '@/ui/said';
import { optionsOf, Select } from '@/ui/select';
import { SourceFaults } from './source-faults';
import { GatherButton, type WayProps } from './way';

const EVERYWHERE = '';

/** Ideas of stems, and what people go on to type. */
export function SourceForm({ onGather, isGathering, stems }: WayProps & { stems: readonly string[] }) {
  const { query } = useRoutes();
  const { data, error } = useQuery({ ...query('GET research/source'), retry: false });
  const [text, setText] = useState(stems.join(', '));
  const [location, setLocation] = useState<string>();
  const [language, setLanguage] = useState<string>();
  const [from, setFrom] = useState<'most related' | 'least related'>('most related');
  const wanted = text
    .split(',')
    .map((stem) => stem.trim())
    .filter((stem) => stem !== '');
  const [first] = wanted;
  const [fault, setFault] = useState<string>();
  const spoken = language ?? data?.languages[0] ?? 'en';
  const at = location ?? data?.locations[0] ?? EVERYWHERE;
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!first) return setFault('A stem is needed.');
        setFault(undefined);
        onGather({
          ...{ kind: 'ideas', stems: wanted, from, language: spoken, most: 2_000 },
          location: at === EVERYWHERE ? null : at,
        });
      }}
    >
      <ErrorText error={error} />
      <TextField
        label="Stems, parted by commas"
        placeholder="beekeeper, bee hive"
        value={text}
        fault={fault}
        onChange={(event) => setText(event.target.value)}
      />
      <p className="flex flex-wrap items-baseline gap-x-1.5 text-soft">
        searched in
        <Select
          look="word"
          label="Location"
          value={at}
          options={[
            ...(data?.locations ?? []).map((one) => ({ key: one, says: one })),
            { key: EVERYWHERE, says: 'everywhere' },
          ]}
          onChange={setLocation}
        />
        in
        <Select
          look="word"
          label="Language"
          value={spoken}
          options={optionsOf(data?.languages ?? [spoken])}
          onChange={setLanguage}
        />
        from the
        <Select
          look="word"
          label="From which end"
          value={from}
          options={[
            { key: 'most related', says: 'most related' },
            { key: 'least related', says: 'least related' },
          ]}
          onChange={setFrom}
        />
        end
      </p>
      <div className="flex flex-wrap gap-2">
        <GatherButton isGathering={isGathering} />
        <Button
          disabled={isGathering || !first}
          onClick={() => first && onGather({ kind: 'completions', stem: first, withLetters: true })}
        >
          Completions of {first ?? 'the first stem'}, a to z
        </Button>
      </div>
      <SourceFaults />
    </form>
  );
}
