'use client';

import { ChangePasswordSchema, LEAST_PASSWORD } from '@/contracts/sign-in';
import { call } from '@/screens/frame/data/routes';
import { ColumnForm } from '@/ui/column-form';
import { TextField, useValidForm } from '@/ui/form';
import { Part } from './part';
import { useOneself } from './use-oneself';

/** Sets another password. */
export function Password() {
  const { register, handleSubmit, formState, reset } = useValidForm(ChangePasswordSchema, {
    ...{ current: '', next: '' },
  });
  const { fault, set } = useOneself();
  const change = handleSubmit(async (body) => {
    const said = 'Your password is another one. Other sessions have ended.';
    if (await set(() => call('', 'POST /you/password', { body }), said)) reset();
  });
  return (
    <Part title="Password">
      <ColumnForm
        className="mt-2"
        label="Password"
        verb="Change it"
        isBusy={formState.isSubmitting}
        fault={fault}
        onSubmit={change}
      >
        <TextField
          label="The password that you have"
          type="password"
          autoComplete="current-password"
          fault={formState.errors.current?.message}
          {...register('current')}
        />
        <TextField
          label={`Another one, ${LEAST_PASSWORD} characters or more`}
          type="password"
          autoComplete="new-password"
          fault={formState.errors.next?.message}
          {...register('next')}
        />
      </ColumnForm>
    </Part>
  );
}
