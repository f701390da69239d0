'use client';

import { useState, type FormEvent, type ReactNode } from 'react';
import { exampleAmount, isCurrency } from '@/core';
import { Button } from '@/ui/button';
import { call } from '@/screens/frame/data/routes';
import type { AskedOf } from '@/contracts/routes';

const FIELD = 'mt-0.5 w-full rounded border border-line bg-sheet px-2 py-1';

type Props = {
  /** whether it asks who adds the account: where nobody is known yet */
  asksName: boolean;
  onAdded: (slug: string) => void;
  onLeave?: () => void;
};

/** Asks for what an account needs before its first report. What was typed stays when something is wrong. */
export function AccountForm({ asksName, onAdded, onLeave }: Props) {
  const [steersBy, setSteersBy] = useState<'CPA' | 'ACoS'>('CPA');
  const [currency, setCurrency] = useState('EUR');
  const [failure, setFailure] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const code = currency.trim().toUpperCase();

  function submit(event: FormEvent<HTMLFormElement>) {
    event.preventDefault();
    // The fields are named as the request names them; the server says what is wrong with what was typed.
    const body = Object.fromEntries(new FormData(event.currentTarget)) as AskedOf<'POST /accounts'>['body'];
    setBusy(true);
    setFailure(null);
    call('', 'POST /accounts', { body })
      .then(({ slug }) => onAdded(slug))
      .catch((error: unknown) => {
        setFailure(error instanceof Error ? error.message : 'It did not work.');
        setBusy(false);
      });
  }

  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={submit}
      onKeyDown={({ key }) => key === 'Escape' && onLeave?.()}
      aria-label="Add an account"
    >
      {asksName && (
        <Field name="Your name">
          <input name="person" required autoFocus maxLength={80} className={FIELD} autoComplete="name" />
        </Field>
      )}
      <Field name="Name of the account">
        <input
          name="name"
          required
          autoFocus={!asksName}
          maxLength={80}
          className={FIELD}
          autoComplete="off"
        />
      </Field>
      <Field name="Currency">
        <input
          name="currency"
          required
          maxLength={3}
          className={FIELD}
          autoComplete="off"
          value={currency}
          onChange={(e) => setCurrency(e.target.value)}
        />
      </Field>
      <Field name="Steers by">
        <select
          name="steersBy"
          className={FIELD}
          value={steersBy}
          onChange={(e) => setSteersBy(e.target.value as 'CPA')}
        >
          <option value="CPA">cost of a conversion (CPA)</option>
          <option value="ACoS">cost as a share of value (ACoS)</option>
        </select>
      </Field>
      <Field name={steersBy === 'CPA' ? 'Target CPA' : 'Target ACoS in percent'}>
        <input
          name="target"
          inputMode="decimal"
          className={FIELD}
          autoComplete="off"
          placeholder={steersBy === 'CPA' ? exampleAmount(isCurrency(code) ? code : 'EUR') : '24'}
        />
      </Field>
      <p className="text-table text-soft">
        All of it can be set later, on the Account screen. Without a target there is no evidence which terms
        miss it.
      </p>
      {failure && (
        <p role="alert" className="border-l-[3px] border-rust bg-rust/10 px-2.5 py-1.5">
          {failure}
        </p>
      )}
      <div className="flex gap-2">
        <Button type="submit" tone="main" disabled={isBusy}>
          Add the account
        </Button>
        {onLeave && <Button onClick={onLeave}>Leave it</Button>}
      </div>
    </form>
  );
}

function Field({ name, children }: { name: string; children: ReactNode }) {
  return (
    <label>
      {name}
      {children}
    </label>
  );
}
