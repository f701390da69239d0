'use client';

import { useSyncExternalStore } from 'react';
import * as v from 'valibot';
import { LEAST_PASSWORD, TakeLinkSchema } from '@/contracts/sign-in';
import { call } from '@/screens/frame/data/routes';
import { StartPage } from '@/screens/start/start-page';
import { ColumnForm, sendingForm } from '@/ui/column-form';
import { TextField, useValidForm } from '@/ui/form';
import { goToCompany } from './by-company';
import { useGoIn } from './use-go-in';

const { entries } = TakeLinkSchema;
const WithPassword = v.object({ ...entries, password: entries.password.wrapped });
const ByCompany = v.omit(TakeLinkSchema, ['password']);

/** The token stands behind the # of the address, so that no server is told it and no log holds it. */
const readToken = () => window.location.hash.slice(1);
const never = () => () => undefined;

/** Where a link leads: sets address and password, and signs in. */
export function LinkScreen({ company }: { company: string | null }) {
  const token = useSyncExternalStore(never, readToken, () => '');
  return (
    <StartPage title="Your address and password">
      {token !== '' && <Setting key={token} token={token} />}
      {token !== '' && company && <CompanyInstead key={`${token} company`} {...{ token, company }} />}
      {token === '' && (
        <p className="mt-1">This address lacks its end. Open the whole link that you were given.</p>
      )}
    </StartPage>
  );
}

function Setting({ token }: { token: string }) {
  const goIn = useGoIn();
  const form = useValidForm(WithPassword, { token, email: '', password: '' });
  const { errors, isSubmitting } = form.formState;
  const take = sendingForm(form, async (body) => {
    await call('', 'POST /sign-in/link', { body });
    goIn();
  });
  return (
    <ColumnForm
      className="mt-5"
      label="Address and password"
      verb="Set, and sign in"
      isMain
      isBusy={isSubmitting}
      fault={errors.root?.message}
      onSubmit={take}
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
        label={`Password, ${LEAST_PASSWORD} characters or more`}
        type="password"
        autoComplete="new-password"
        fault={errors.password?.message}
        {...form.register('password')}
      />
    </ColumnForm>
  );
}

/** The address alone: the company knows who one is. */
function CompanyInstead({ token, company }: { token: string; company: string }) {
  const form = useValidForm(ByCompany, { token, email: '' });
  const { errors, isSubmitting } = form.formState;
  const take = sendingForm(form, async (body) => {
    await call('', 'POST /sign-in/link', { body: { ...body, password: null } });
    await goToCompany();
  });
  return (
    <ColumnForm
      className="mt-5 border-t border-line pt-4"
      label={`By ${company}`}
      verb={`Sign in by ${company}`}
      isBusy={isSubmitting}
      fault={errors.root?.message}
      onSubmit={take}
    >
      <TextField
        label={`Or your address at ${company}, and no password`}
        type="email"
        fault={errors.email?.message}
        {...form.register('email')}
      />
    </ColumnForm>
  );
}
