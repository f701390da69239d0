'use client';

import { useState } from 'react';
import { CodeSchema, OwnPasswordSchema } from '@/contracts/sign-in';
import { call } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { ColumnForm } from '@/ui/column-form';
import { Fault, TextField, useValidForm } from '@/ui/form';
import { Part } from './part';
import { QrCode } from './qr-code';
import { useOneself } from './use-oneself';

type NewFactor = { uri: string; spareCodes: string[] };

/** The second factor: a program on a telephone or elsewhere that shows a code, which signing in asks for. */
export function Factor({ hasFactor }: { hasFactor: boolean }) {
  const [made, setMade] = useState<NewFactor | null>(null);
  const { fault, set } = useOneself();
  const begin = (password: string) => call('', 'POST /you/factor', { body: { password } }).then(setMade);
  const end = (password: string) => call('', 'POST /you/factor/off', { body: { password } });
  return (
    <Part title="Second factor">
      {made ? (
        <Confirming made={made} onDone={() => setMade(null)} />
      ) : (
        <AskingPassword
          says={
            hasFactor
              ? 'Signing in asks for a code of your second factor.'
              : 'Signing in asks for your password alone. With a second factor it also asks for a code, which a program on your telephone shows.'
          }
          verb={hasFactor ? 'Take it away' : 'Set one up'}
          fault={fault}
          onPassword={(password) =>
            hasFactor
              ? set(() => end(password), 'Signing in asks for your password alone.')
              : set(() => begin(password), 'Give a code of it, so that it counts.')
          }
        />
      )}
    </Part>
  );
}

type Asking = {
  says: string;
  verb: string;
  fault: string | null;
  onPassword: (password: string) => Promise<boolean>;
};

function AskingPassword({ says, verb, fault, onPassword }: Asking) {
  const { register, handleSubmit, formState, reset } = useValidForm(OwnPasswordSchema, { password: '' });
  const submit = handleSubmit(async ({ password }) => {
    if (await onPassword(password)) reset();
  });
  return (
    <ColumnForm
      className="mt-1"
      label="Second factor"
      verb={verb}
      isBusy={formState.isSubmitting}
      fault={fault}
      onSubmit={submit}
    >
      <p>{says}</p>
      <TextField
        label="Your password"
        type="password"
        autoComplete="current-password"
        fault={undefined}
        {...register('password')}
      />
    </ColumnForm>
  );
}

function Confirming({ made: { uri, spareCodes }, onDone }: { made: NewFactor; onDone: () => void }) {
  const { fault, set } = useOneself();
  const { register, handleSubmit, formState } = useValidForm(CodeSchema, { code: '' });
  const confirm = handleSubmit(async (body) => {
    const said = 'From now on signing in asks for a code too.';
    if (await set(() => call('', 'POST /you/factor/code', { body }), said)) onDone();
  });
  const secret = new URL(uri).searchParams.get('secret') ?? '';
  return (
    <form
      className="mt-1 flex flex-col gap-3"
      noValidate
      aria-label="A code of the second factor"
      onSubmit={(event) => void confirm(event)}
    >
      <p>Let the program read this, or give it the key below.</p>
      <QrCode text={uri} says="The key of the second factor, to be read by a camera" />
      <p>
        Key: <code className="break-all">{secret}</code>
      </p>
      <p>
        Keep these spare codes where you find them without your telephone. Each counts once in the place of a
        code, and they are shown only now.
      </p>
      <ul aria-label="Spare codes" className="grid grid-cols-2 gap-x-6">
        {spareCodes.map((code) => (
          <li key={code}>
            <code>{code}</code>
          </li>
        ))}
      </ul>
      <TextField
        label="The six digits that it shows"
        inputMode="numeric"
        autoComplete="one-time-code"
        autoFocus
        fault={formState.errors.code?.message}
        {...register('code')}
      />
      {fault && <Fault>{fault}</Fault>}
      <div className="flex gap-2">
        <Button type="submit" tone="main" disabled={formState.isSubmitting}>
          Ask for it from now on
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </div>
    </form>
  );
}
