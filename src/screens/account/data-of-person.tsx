'use client';

import { useState } from 'react';
import type { Member } from '@/contracts/roles';
import { useRoutes } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { Fault, FIELD } from '@/ui/form';
import { useSaving } from './use-settings';

/** Saves everything that is stored of a person, or removes the person for good. */
export function DataOfPerson({ person }: { person: Member }) {
  const { address } = useRoutes();
  const [asks, setAsks] = useState(false);
  return (
    <>
      <a
        href={address('GET people/[person]/data', { params: { person: person.id } })}
        download
        aria-label={`Save what is stored of ${person.name}`}
        className="px-1 underline"
      >
        Data
      </a>
      <Button tone="quiet" aria-label={`Remove ${person.name}`} onClick={() => setAsks(true)}>
        Remove…
      </Button>
      {asks && <Forget person={person} onClose={() => setAsks(false)} />}
    </>
  );
}

function Forget({ person: { id, name }, onClose }: { person: Member; onClose: () => void }) {
  const { call } = useRoutes();
  const saving = useSaving();
  const [typed, setTyped] = useState('');
  const forget = () =>
    saving.save(async () => {
      await call('POST people/[person]/forget', { params: { person: id }, body: { name: typed } });
      return { said: `Person ${id} was removed` };
    });
  return (
    <DialogFrame
      title={`Remove ${name}`}
      says={`“Person ${id}” stands in the place of the name from then on, in the Ledger too. How ${name} signs in goes, with all roles. What ${name} decided stays. This can not be undone.`}
      onClose={onClose}
    >
      <form
        className="flex flex-wrap items-center gap-2 pt-2"
        aria-label={`Remove ${name}`}
        onSubmit={(event) => {
          event.preventDefault();
          void forget().then((isDone) => isDone && onClose());
        }}
      >
        <input
          autoFocus
          aria-label="The name, to be sure"
          placeholder={name}
          className={`${FIELD} w-64`}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        <Button type="submit" tone="main" disabled={saving.isBusy || typed.trim() === ''}>
          Remove for good
        </Button>
        <Button onClick={onClose}>Leave</Button>
        {saving.fault && <Fault>{saving.fault}</Fault>}
      </form>
    </DialogFrame>
  );
}
