'use client';

import { settingId } from './setting';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import type { AccountView } from '@/contracts/account';
import { useAccount } from '@/screens/frame/account-context';
import { AccountForm } from '@/screens/start/account-form';
import { Button } from '@/ui/button';
import { useSaving } from './use-settings';
import { call } from '@/screens/frame/data/routes';

/** All accounts here: others are added, and retired or taken back. */
export function Accounts({ view: { accounts } }: { view: AccountView }) {
  const { summary } = useAccount();
  const router = useRouter();
  const saving = useSaving();
  const [adds, setAdds] = useState(false);
  const adder = useRef<HTMLButtonElement>(null);
  function leave() {
    flushSync(() => setAdds(false));
    adder.current?.focus();
  }
  const retire = (slug: string, isRetired: boolean) =>
    call(slug, 'PUT account/retired', { body: { isRetired } });
  return (
    <section aria-labelledby={settingId('Accounts')} className="px-4 py-2.5">
      <div className="flex items-start gap-4">
        <h2 id={settingId('Accounts')} className="w-[112px] shrink-0 pt-0.5 font-semibold">
          Accounts
        </h2>
        <div className="min-w-0 flex-1">
          <ul aria-label="Accounts">
            {accounts.map(({ slug, name, isRetired }) => (
              <li key={slug} className="flex min-h-7 items-center gap-2">
                <span className={`w-56 truncate ${isRetired ? 'text-soft' : ''}`}>
                  {name}
                  {isRetired && ', retired'}
                  {slug === summary.slug && <span className="text-soft"> (this one)</span>}
                </span>
                <Button
                  tone="quiet"
                  aria-label={`${isRetired ? 'Take back' : 'Retire'} ${name}`}
                  onClick={() =>
                    void saving.save(async () => {
                      await retire(slug, !isRetired);
                      return {
                        said: `${name} is ${isRetired ? 'back' : 'retired'}`,
                        undo: () => retire(slug, isRetired),
                      };
                    })
                  }
                >
                  {isRetired ? 'Take back' : 'Retire'}
                </Button>
              </li>
            ))}
          </ul>
          {saving.fault && (
            <p role="alert" className="text-table text-rust">
              {saving.fault}
            </p>
          )}
          <p className="text-table text-soft">
            A retired account stands in no list, and its reports are not fetched any more. Nothing of it is
            lost.
          </p>
          {adds ? (
            <div className="mt-3 max-w-md">
              <AccountForm
                asksName={false}
                onAdded={(slug) => router.push(`/${slug}/intake`)}
                onLeave={leave}
              />
            </div>
          ) : (
            <Button ref={adder} className="mt-2" onClick={() => setAdds(true)}>
              Add an account…
            </Button>
          )}
        </div>
      </div>
    </section>
  );
}
