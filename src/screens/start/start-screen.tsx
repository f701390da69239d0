'use client';

import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { ask } from '@/ui/ask';
import { Sign } from '@/ui/marks';

const FIELD = 'mt-0.5 w-full rounded border border-line bg-sheet px-2 py-1';

/** The first screen of an empty Gate Post: asks for an account. */
export function StartScreen() {
  const router = useRouter();
  const [steersBy, setSteersBy] = useState<'CPA' | 'ACoS'>('CPA');
  const [failure, setFailure] = useState<string | null>(null);

  function submit(event: FormEvent<HTMLFormElement>) {
    event.preventDefault();
    const body = Object.fromEntries(new FormData(event.currentTarget));
    ask<{ slug: string }>('/api/accounts', { method: 'POST', body })
      .then(({ slug }) => router.push(`/${slug}/intake`))
      .catch((error: unknown) => setFailure(error instanceof Error ? error.message : 'It did not work.'));
  }

  return (
    <main className="mx-auto max-w-md px-6 py-16">
      <p className="flex items-center gap-2.5 font-title text-[18px] font-bold">
        <Sign /> Gate Post
      </p>
      <h1 className="mt-6 font-title text-[26px] font-bold">Add an account</h1>
      <p className="mt-1 text-soft">
        Then bring its search term report in Intake. To look around with made-up data first, stop Gate Post
        and run <code>./gatepost demo</code>.
      </p>
      <form className="mt-5 flex flex-col gap-3" onSubmit={submit}>
        <label>
          Your name
          <input name="person" required maxLength={80} className={FIELD} autoComplete="name" />
        </label>
        <label>
          Name of the account
          <input name="name" required maxLength={80} className={FIELD} />
        </label>
        <label>
          Currency
          <input name="currency" required defaultValue="EUR" maxLength={3} className={FIELD} />
        </label>
        <label>
          Steers by
          <select
            name="steersBy"
            className={FIELD}
            value={steersBy}
            onChange={(e) => setSteersBy(e.target.value as 'CPA')}
          >
            <option value="CPA">cost of a conversion (CPA)</option>
            <option value="ACoS">cost as a share of value (ACoS)</option>
          </select>
        </label>
        <label>
          {steersBy === 'CPA' ? 'Target CPA' : 'Target ACoS in percent'}
          <input
            name="target"
            required
            inputMode="decimal"
            className={FIELD}
            placeholder={steersBy === 'CPA' ? '18.00' : '24'}
          />
        </label>
        {failure && (
          <p role="alert" className="border-l-[3px] border-rust bg-rust/10 px-2.5 py-1.5">
            {failure}
          </p>
        )}
        <button
          type="submit"
          className="self-start rounded border border-pine bg-pine px-3 py-1.5 font-semibold text-on-pine"
        >
          Add the account
        </button>
      </form>
    </main>
  );
}
