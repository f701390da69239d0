'use client';

import { useState } from 'react';
import { exampleAmount, isCurrency } from '@/core';
import { NewAccountSchema } from '@/contracts/account';
import type { AskedOf } from '@/contracts/routes';
import { call } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { SelectField, TextField, useValidForm } from '@/ui/form';
import type { Option } from '@/ui/select';

type Asked = AskedOf<'POST /accounts'>['body'];

/** What an account can be steered by. */
export const STEERS_BY: Option<'CPA' | 'ACoS'>[] = [
  { key: 'CPA', says: 'the cost of a conversion (CPA)' },
  { key: 'ACoS', says: 'cost as a share of value (ACoS)' },
];

type Props = {
  /** whether it asks who adds the account: where nobody is known yet */
  asksName: boolean;
  onAdded: (slug: string) => void;
  onLeave?: () => void;
};

/** Asks for what an account needs before its first report. What was typed stays when something is wrong. */
export function AccountForm({ asksName, onAdded, onLeave }: Props) {
  const { register, control, handleSubmit, watch, formState, setError } = useValidForm<Asked>(
    NewAccountSchema,
    {
      ...{ name: '', currency: 'EUR', steersBy: 'CPA', target: '' },
      ...(asksName && { person: '' }),
    },
  );
  const { errors, isSubmitting } = formState;
  const [added, setAdded] = useState(false);
  const [steersBy, currency] = watch(['steersBy', 'currency']);
  const code = currency.trim().toUpperCase();

  // What only the server knows, it says.
  async function add(body: Asked) {
    try {
      const { slug } = await call('', 'POST /accounts', { body });
      setAdded(true);
      onAdded(slug);
    } catch (error) {
      setError('root', { message: error instanceof Error ? error.message : 'It did not work.' });
    }
  }

  return (
    <form
      className="flex flex-col gap-3"
      noValidate
      onSubmit={(event) => void handleSubmit(add)(event)}
      onKeyDown={({ key }) => key === 'Escape' && onLeave?.()}
      aria-label="Add an account"
    >
      {asksName && (
        <TextField
          {...{ label: 'Your name', fault: errors.person?.message, autoComplete: 'name' }}
          autoFocus
          maxLength={80}
          {...register('person')}
        />
      )}
      <TextField
        {...{ label: 'Name of the account', fault: errors.name?.message, autoComplete: 'off' }}
        autoFocus={!asksName}
        maxLength={80}
        {...register('name')}
      />
      <TextField
        {...{ label: 'Currency', fault: errors.currency?.message, autoComplete: 'off' }}
        maxLength={3}
        {...register('currency')}
      />
      <div>
        <span aria-hidden>Steers by</span>
        <SelectField
          label="Steers by"
          className="mt-0.5 w-full"
          control={control}
          name="steersBy"
          options={STEERS_BY}
        />
      </div>
      <TextField
        label={steersBy === 'CPA' ? 'Target CPA' : 'Target ACoS in percent'}
        {...{ fault: errors.target?.message, autoComplete: 'off', inputMode: 'decimal' }}
        placeholder={steersBy === 'CPA' ? exampleAmount(isCurrency(code) ? code : 'EUR') : '24'}
        {...register('target')}
      />
      <p className="text-table text-soft">
        All of it can be set later, on the Account screen. Without a target there is no evidence which terms
        miss it.
      </p>
      {errors.root && (
        <p role="alert" className="border-l-[3px] border-rust bg-rust/10 px-2.5 py-1.5">
          {errors.root.message}
        </p>
      )}
      <div className="flex gap-2">
        <Button type="submit" tone="main" disabled={isSubmitting || added}>
          Add the account
        </Button>
        {onLeave && <Button onClick={onLeave}>Leave it</Button>}
      </div>
    </form>
  );
}
