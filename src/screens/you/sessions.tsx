'use client';

import type { You } from '@/contracts/sign-in';
import { call } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { Fault } from '@/ui/form';
import { formatMoment } from '@/ui/format';
import { nameBrowser } from './name-browser';
import { Part } from './part';
import { useOneself } from './use-oneself';

type Session = NonNullable<You['signsIn']>['sessions'][number];

/** Where oneself is signed in; each can be ended. */
export function Sessions({ sessions }: { sessions: Session[] }) {
  const { fault, set } = useOneself();
  const end = (session: string) =>
    set(
      () => call('', 'POST /you/sessions/[session]/end', { params: { session } }),
      'That browser has to sign in again.',
    );
  return (
    <Part title="Where you are signed in">
      <ul aria-label="Sessions">
        {sessions.map(({ id, browser, startedAt, isThis }) => (
          <li key={id} className="flex min-h-8 items-center gap-3">
            <span className="flex-1 truncate" title={browser}>
              {nameBrowser(browser)}, since {formatMoment(startedAt)}
            </span>
            {isThis ? (
              <span className="text-soft">this one</span>
            ) : (
              <Button onClick={() => void end(id)}>End</Button>
            )}
          </li>
        ))}
      </ul>
      {fault && <Fault>{fault}</Fault>}
    </Part>
  );
}
