'use client';

import Link from 'next/link';
import { Button } from '@/ui/button';
import { StartPage } from './start-page';
import { useChoosePerson } from './use-choose-person';

type Props = {
  /** what the server says of it */
  why: string;
  /** who has a role in this account, where who one is, is chosen; else nobody */
  people: { id: number; name: string }[];
  /** those in which the person has a role */
  accounts: { slug: string; name: string }[];
};

/** In the place of an account in which the person has no role: where else to go, and who one might be. */
export function NoRoleScreen({ why, people, accounts }: Props) {
  const choose = useChoosePerson();
  return (
    <StartPage title="Not your account">
      <p className="mt-1">{why}</p>
      {accounts.length > 0 && (
        <ul aria-label="Your accounts" className="mt-5">
          {accounts.map(({ slug, name }) => (
            <li key={slug} className="flex min-h-8 items-center">
              <Link href={`/${slug}/today`} className="underline underline-offset-2">
                {name}
              </Link>
            </li>
          ))}
        </ul>
      )}
      {people.length > 0 && <h2 className="mt-6 font-semibold">You are somebody else</h2>}
      <ul>
        {people.map(({ id, name }) => (
          <li key={id} className="flex min-h-8 items-center gap-2">
            <span className="flex-1 truncate">{name}</span>
            <Button aria-label={`You are ${name}`} onClick={() => choose(id)}>
              Go on as this one
            </Button>
          </li>
        ))}
      </ul>
    </StartPage>
  );
}
