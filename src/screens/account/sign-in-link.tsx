'use client';

import { useState } from 'react';
import type { Member } from '@/contracts/roles';
import { useRoutes } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { Fault } from '@/ui/form';
import { formatMoment } from '@/ui/format';

/** Makes the link by which a person sets address and password, and shows it once. */
export function SignInLink({ person }: { person: Member }) {
  const { call } = useRoutes();
  const [link, setLink] = useState<{ address: string; endsAt: string } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  async function make() {
    setFault(null);
    try {
      const { token, endsAt } = await call('POST people/[person]/link', { params: { person: person.id } });
      setLink({ address: `${window.location.origin}/sign-in/link#${token}`, endsAt });
    } catch (error) {
      setFault(error instanceof Error ? error.message : 'It did not work.');
    }
  }
  return (
    <>
      <Button tone="quiet" aria-label={`Link for ${person.name}`} onClick={() => void make()}>
        Link…
      </Button>
      {fault && <Fault>{fault}</Fault>}
      {link && (
        <DialogFrame
          title={`A link for ${person.name}`}
          says={`By it ${person.name} sets an e-mail address and a password, once, until ${formatMoment(link.endsAt)}. Whoever has it is ${person.name} from then on: hand it over yourself. It is shown only now.`}
          onClose={() => setLink(null)}
        >
          <div className="flex items-center gap-2 pt-2">
            <input
              readOnly
              aria-label="The link"
              className="w-full rounded border border-line bg-paper px-1.5 py-0.5"
              value={link.address}
              onFocus={(event) => event.target.select()}
            />
            <Button tone="main" onClick={() => void navigator.clipboard.writeText(link.address)}>
              Copy
            </Button>
            <Button onClick={() => setLink(null)}>Close</Button>
          </div>
        </DialogFrame>
      )}
    </>
  );
}
