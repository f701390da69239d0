import { screen, waitFor } from '@testing-library/react';
import { expect, test } from 'vitest';
import type { Mentions } from '@/contracts/mentions';
import { show } from '@/screens/testing/screen';
import { PassHolder } from './pass-holder';

const given = { id: 3, to: 'Tobias Finch', isMine: false, by: 'Maren Oakes', at: '2026-11-20T09:00:00Z' };
const shown = (pass: Mentions['pass'] = null, role: 'own' | 'look' = 'own') =>
  show(<PassHolder />, {
    answers: {
      'GET mentions': { lines: [], pass },
      'POST pass/holder': { id: 3 },
      'DELETE pass/holder/[mention]': {},
    },
    role,
  });

test('the rest of the pass is given to somebody who may decide, and taken back by the undo', async () => {
  const { user, asked } = shown();
  await user.click(screen.getByRole('combobox', { name: 'Give the rest to' }));
  expect(screen.getAllByRole('option').map((one) => one.textContent)).toEqual([
    'Maren Oakes',
    'Tobias Finch',
  ]);
  await user.click(screen.getByRole('option', { name: 'Tobias Finch' }));
  expect(await screen.findByText('The rest of this pass is Tobias Finch’s')).toBeDefined();
  expect(asked('POST pass/holder')[0]!.body).toEqual({ to: 2 });
  await user.click(screen.getByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(asked('DELETE pass/holder/[mention]')[0]!.params).toEqual({ mention: '3' }));
});

test('who has it is said', async () => {
  shown(given);
  expect(await screen.findByText('Tobias Finch has the rest of it')).toBeDefined();
});

test('who may look reads who has it, and gives nothing away', async () => {
  shown({ ...given, isMine: true }, 'look');
  expect(await screen.findByText('Maren Oakes gave you the rest of it')).toBeDefined();
  expect(screen.queryByRole('combobox')).toBeNull();
});
