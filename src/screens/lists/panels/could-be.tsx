'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { CouldBeView } from '@/contracts/lists';
import type { ListEdit } from '@/contracts/list-edits';
import { InHand } from '@/screens/frame/in-hand';
import { TextField } from '@/ui/form';
import { EditInHand } from '../edit/edit-in-hand';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted, listed } from '@/core';
import { formatCount } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { inMemory, useLayout, type Sort } from '@/ui/table/use-layout';
import { ErrorText } from '@/ui/said';

/** Asked for when it is wanted: it takes a while in a large account. */
export function useCouldBe(isWanted: boolean) {
  const { query } = useRoutes();
  return useQuery({
    ...query('GET lists/could-be'),
    enabled: isWanted,
  });
}

type CouldBeSet = CouldBeView['sets'][number];

/** Negatives that stand one by one in several campaigns: each set could be one list, hung once on all of them. */
export function CouldBe() {
  const { data, error } = useCouldBe(true);
  const [at, setAt] = useState(0);
  const [sort, setSort] = useState<Sort | null>(null);
  const layout = useLayout('could-be', SET_COLUMNS, data?.sets ?? NONE, sort);
  const { rows } = layout;
  const set = rows[at];
  return (
    <>
      <ErrorText error={error} isWhole />
      <DataTable
        id="could-be"
        label="Sets that could be lists"
        {...inMemory(layout)}
        cursor={Math.min(at, Math.max(0, rows.length - 1))}
        onCursor={setAt}
        sort={sort}
        onSort={setSort}
        isMeasured
        rowPx={48}
        saveAs="negatives that could be lists"
        empty={
          data &&
          'No two campaigns have two negatives in common that would be fewer as a list. Nothing to gather.'
        }
      />
      {set ? (
        <Gather key={set.entries.map((e) => e.text).join()} set={set} onDone={() => setAt(0)} />
      ) : (
        <InHand>
          <p className="mt-1 text-table text-soft">Nothing is chosen.</p>
        </InHand>
      )}
    </>
  );
}

const NONE: readonly CouldBeSet[] = [];
const entriesOf = ({ entries }: CouldBeSet) => listed(entries.map(({ text, match }) => `${text} (${match})`));
const campaignsOf = ({ campaigns }: CouldBeSet) => listed(campaigns.map(({ name }) => name));

const SET_COLUMNS: readonly Column<CouldBeSet>[] = [
  {
    ...{ id: 'negatives', name: 'negatives', px: 180, share: 1, most: 620, isText: true, isSortable: true },
    value: entriesOf,
    cell: (set) => (
      <span className="block whitespace-normal">
        <b>{counted(set.entries.length, 'negative')}</b> <span className="text-soft">{entriesOf(set)}</span>
      </span>
    ),
  },
  {
    ...{ id: 'campaigns', name: 'on each of', px: 150, share: 1, most: 460, isText: true, isSortable: true },
    value: campaignsOf,
    cell: (set) => (
      <span className="block whitespace-normal">
        {counted(set.campaigns.length, 'campaign')} <span className="text-soft">{campaignsOf(set)}</span>
      </span>
    ),
  },
  {
    ...{ id: 'now', name: 'now', px: 44, isSortable: true, explains: 'Negatives that stand there now.' },
    value: ({ entries, campaigns }) => entries.length * campaigns.length,
    cell: ({ entries, campaigns }) => formatCount(entries.length * campaigns.length),
  },
  {
    ...{ id: 'list', name: 'as a list', px: 44, isSortable: true },
    explains: 'Its entries, and where it would hang.',
    value: ({ entries, campaigns }) => entries.length + campaigns.length,
    cell: ({ entries, campaigns }) => formatCount(entries.length + campaigns.length),
  },
  {
    ...{ id: 'saves', name: 'fewer', px: 48, isSortable: true },
    value: ({ saves }) => saves,
    cell: ({ saves }) => formatCount(saves),
  },
];

function Gather({ set, onDone }: { set: CouldBeView['sets'][number]; onDone: () => void }) {
  const [name, setName] = useState('Common to several');
  const edit: ListEdit = {
    ...{ do: 'gather', name: name.trim() || 'Common to several', entries: set.entries },
    from: set.campaigns.map(({ id }) => ({ kind: 'campaign', id })),
  };
  return (
    <InHand title={counted(set.entries.length, 'negative')}>
      <EditInHand edit={edit} onDone={onDone} onLeave={onDone}>
        <NameField name={name} onChange={setName} />
      </EditInHand>
    </InHand>
  );
}

export function NameField({ name, onChange }: { name: string; onChange: (name: string) => void }) {
  return (
    <TextField
      label="Name of the list"
      maxLength={120}
      fault={name.trim() === '' ? 'Give the list a name.' : undefined}
      value={name}
      onChange={(e) => onChange(e.target.value)}
    />
  );
}
