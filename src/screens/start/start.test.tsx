import { screen, waitFor } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { choose, Decline, show } from '../testing/screen';
import { AccountForm } from './account-form';

test('the first account is added with a name for the person, and what was typed stays when it is declined', async () => {
  const onAdded = vi.fn();
  const { user, asked, answer } = show(<AccountForm asksName onAdded={onAdded} />, {
    answers: {
      'POST /accounts': () => {
        throw new Decline('There is an account named Larkfell already.');
      },
    },
  });
  await user.type(screen.getByLabelText('Your name'), 'Ilse Brandow');
  await user.type(screen.getByLabelText('Name of the account'), 'Larkfell');
  await choose(user, screen.getByLabelText('Steers by'), /ACoS/);
  await user.type(screen.getByLabelText('Target ACoS in percent'), '24');
  await user.click(screen.getByRole('button', { name: /Add/ }));
  expect((await screen.findByRole('alert')).textContent).toContain(
    'There is an account named Larkfell already',
  );
  expect(screen.getByLabelText('Name of the account')).toHaveProperty('value', 'Larkfell');
  answer({ 'POST /accounts': { slug: 'larkfell' } });
  await user.click(screen.getByRole('button', { name: /Add/ }));
  await waitFor(() => expect(onAdded).toHaveBeenCalledWith('larkfell'));
  expect(asked('POST /accounts')[1]!.body).toEqual({
    ...{ person: 'Ilse Brandow', name: 'Larkfell', currency: 'EUR', steersBy: 'ACoS', target: '24' },
  });
});

test('a further account asks for no name, and is left by Escape', async () => {
  const onLeave = vi.fn();
  const { user } = show(<AccountForm asksName={false} onAdded={vi.fn()} onLeave={onLeave} />);
  expect(screen.queryByLabelText('Your name')).toBeNull();
  await user.type(screen.getByLabelText('Name of the account'), '{Escape}');
  expect(onLeave).toHaveBeenCalled();
});
