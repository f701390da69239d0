'use client';

import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import type { You } from '@/contracts/sign-in';
import { addressOf } from '@/contracts/routes';
import { ownQuery } from '@/screens/frame/data/routes';
import { StartPage } from '@/screens/start/start-page';
import { ErrorText } from '@/ui/said';
import { Events } from './events';
import { Factor } from './factor';
import { Part } from './part';
import { Password } from './password';
import { Sessions } from './sessions';

/** How oneself signs in: password, second factor, where one is signed in, and what happened. */
export function YouScreen() {
  const { data, error } = useQuery(ownQuery('GET /you'));
  return (
    <StartPage title="How you sign in">
      <p className="mt-1">
        <Link href="/" className="underline">
          Back to your accounts
        </Link>
      </p>
      <ErrorText error={error} isWhole />
      {data && <Parts you={data} />}
    </StartPage>
  );
}

function Parts({ you: { name, signsIn, events } }: { you: You }) {
  if (!signsIn)
    return (
      <>
        <p className="mt-5">Nobody signs in here: Gate Post listens on this machine alone.</p>
        {name !== '' && <Data />}
      </>
    );
  return (
    <>
      <p className="mt-1 text-soft">
        {name}, {signsIn.email}
      </p>
      <Password />
      <Factor hasFactor={signsIn.hasFactor} />
      <Sessions sessions={signsIn.sessions} />
      <Events lines={events} />
      <Data />
    </>
  );
}

/** Everything that is stored of oneself, to take along. */
function Data() {
  return (
    <Part title="What is stored of you">
      <p>
        <a href={addressOf('GET /you/data', '')} download className="underline">
          Save it as a file
        </a>
        . To have it removed, ask whoever owns your accounts.
      </p>
    </Part>
  );
}
