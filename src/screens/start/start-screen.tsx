'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Button } from '@/ui/button';
import { StartPage } from './start-page';
import { AccountForm } from './account-form';
import { call } from '@/screens/frame/data/routes';

type Props = {
  /** nobody is known here yet */
  isFirst: boolean;
  retired: { slug: string; name: string }[];
};

/** The first screen of an empty Gate Post: asks for an account, or for one that was retired. */
export function StartScreen({ isFirst, retired }: Props) {
  const router = useRouter();
  const [failure, setFailure] = useState<string | null>(null);
  const takeBack = (slug: string) =>
    call(slug, 'PUT account/retired', { body: { isRetired: false } })
      .then(() => router.push(`/${slug}/sift`))
      .catch((error: unknown) => setFailure(error instanceof Error ? error.message : 'It did not work.'));
  return (
    <StartPage title="Add an account">
      <p className="mt-1 mb-5 text-soft">
        Then bring its search term report in Intake. To look around with made-up data first, stop Gate Post
        and run <code>./gatepost demo</code>.
      </p>
      <AccountForm asksName={isFirst} onAdded={(slug) => router.push(`/${slug}/intake`)} />
      {retired.length > 0 && (
        <section aria-labelledby="retired-title" className="mt-8">
          <h2 id="retired-title" className="font-semibold">
            Retired accounts
          </h2>
          <ul>
            {retired.map(({ slug, name }) => (
              <li key={slug} className="flex min-h-8 items-center gap-2">
                <span className="flex-1 truncate">{name}</span>
                <Button onClick={() => void takeBack(slug)}>Take back</Button>
              </li>
            ))}
          </ul>
          {failure && (
            <p role="alert" className="text-rust">
              {failure}
            </p>
          )}
        </section>
      )}
    </StartPage>
  );
}
