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

/** Asked for when it is wanted: it takes a while in a large account. */
export function useCouldBe(isWanted: boolean) {
  const { query } = useRoutes();
  return useQuery({
    ...query('GET lists/could-be'),
    enabled: isWanted,
  });
}

/** Negatives that stand one by one in several campaigns: each set could be one list, hung once on all of them. */
export function CouldBe() {
  const { data, error } = useCouldBe(true);
  const [at, setAt] = useState(0);
  const set = data?.sets[at];
  return (
    <>
      <div className="min-h-0 flex-1 overflow-y-auto text-table">
        {error && <p className="p-4 text-rust">{error.message}</p>}
        {data?.sets.length === 0 && (
          <p className="p-4 text-soft">
            No two campaigns have two negatives in common that would be fewer as a list. Nothing to gather.
          </p>
        )}
        <ul aria-label="Sets that could be lists">
          {data?.sets.map(({ entries, campaigns, saves }, i) => (
            <li
              key={i}
              className={`border-b border-line ${i === at ? 'border-l-[3px] border-l-pine bg-raised' : ''}`}
            >
              <button
                type="button"
                className="w-full px-4 py-2 text-left"
                aria-pressed={i === at}
                onClick={() => setAt(i)}
              >
                <b>
                  {counted(entries.length, 'negative')} on each of {counted(campaigns.length, 'campaign')}
                </b>{' '}
                <span className="text-soft">
                  {entries.length * campaigns.length} now; as a list {entries.length + campaigns.length}:{' '}
                  {saves} fewer
                </span>
                <span className="block truncate text-soft">
                  {listed(entries.map(({ text, match }) => `${text} (${match})`))}
                </span>
                <span className="block truncate text-soft">{listed(campaigns.map((c) => c.name))}</span>
              </button>
            </li>
          ))}
        </ul>
      </div>
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
