'use client';

import { useState } from 'react';
import { CodeSchema, SignInSchema } from '@/contracts/sign-in';
import { call } from '@/screens/frame/data/routes';
import { StartPage } from '@/screens/start/start-page';
import { ColumnForm, sendingForm } from '@/ui/column-form';
import { TextField, useValidForm } from '@/ui/form';
import { ByCompany } from './by-company';
import { useGoIn } from './use-go-in';

type Props = {
  /** nobody has set a password yet */
  isFirst: boolean;
  /** what the company is called by which people may sign in */
  company: string | null;
};

/** Asks for address and password, and then for a code where the person has a second factor; or leads to the company. */
export function SignInScreen({ isFirst, company }: Props) {
  const [needsCode, setNeedsCode] = useState(false);
  if (isFirst) return <Nobody />;
  return (
    <StartPage title="Sign in">
      {needsCode ? (
        <Code />
      ) : (
        <>
          <Password onCodeAsked={() => setNeedsCode(true)} />
          {company && <ByCompany company={company} />}
        </>
      )}
    </StartPage>
  );
}

function Nobody() {
  return (
    <StartPage title="Nobody can sign in yet">
      <p className="mt-1">
        Whoever runs Gate Post makes the first link, on the machine where it runs. By it one sets an address
        and a password:
      </p>
      <p className="mt-3">
        <code>./gatepost link &quot;Your name&quot;</code>
      </p>
    </StartPage>
  );
}

function Password({ onCodeAsked }: { onCodeAsked: () => void }) {
  const goIn = useGoIn();
  const form = useValidForm(SignInSchema, { email: '', password: '' });
  const { errors, isSubmitting } = form.formState;
  const signIn = sendingForm(
    form,
    async (body) => {
      const { is } = await call('', 'POST /sign-in', { body });
      if (is === 'signed in') goIn();
      else onCodeAsked();
    },
    { again: 'password' },
  );
  return (
    <>
      <ColumnForm
        className="mt-5"
        label="Sign in"
        verb="Sign in"
        isMain
        isBusy={isSubmitting}
        fault={errors.root?.message}
        onSubmit={signIn}
      >
        <TextField
          label="E-mail"
          type="email"
          autoComplete="username"
          autoFocus
          fault={errors.email?.message}
          {...form.register('email')}
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          fault={errors.password?.message}
          {...form.register('password')}
        />
      </ColumnForm>
      <p className="mt-3 text-table text-soft">
        No password yet, or forgotten? Whoever owns your account, or runs Gate Post, gives you a link by which
        you set one.
      </p>
    </>
  );
}

function Code() {
  const goIn = useGoIn();
  const form = useValidForm(CodeSchema, { code: '' });
  const { errors, isSubmitting } = form.formState;
  const give = sendingForm(
    form,
    async (body) => {
      await call('', 'POST /sign-in/code', { body });
      goIn();
    },
    { at: 'code', again: 'code' },
  );
  return (
    <ColumnForm className="mt-5" label="Code" verb="Go on" isMain isBusy={isSubmitting} onSubmit={give}>
      <TextField
        label="The six digits that your second factor shows, or a spare code"
        autoComplete="one-time-code"
        maxLength={11}
        autoFocus
        fault={errors.code?.message}
        {...form.register('code')}
      />
    </ColumnForm>
  );
}
