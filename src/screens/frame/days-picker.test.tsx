import { screen, waitFor } from '@testing-library/react';
import { expect, test } from 'vitest';
import { aSummary } from '../testing/builders';
import { show } from '../testing/screen';
import { DaysPicker } from './days-picker';

const summary = aSummary();
const open = async (search = '') => {
  const shown = show(<DaysPicker summary={summary} />, { search });
  await shown.user.click(await screen.findByRole('button', { name: 'Days that are looked at' }));
  return shown;
};

test('a length is chosen, and the account’s own stands in no address', async () => {
  const { user, search } = await open();
  await user.click(screen.getByRole('radio', { name: '7 days' }));
  expect(search().get('days')).toBe('7');
  await user.click(screen.getByRole('radio', { name: `${summary.window!.days} days` }));
  expect(search().get('days')).toBeNull();
});

test('any range is taken, and one that ends before it starts is not', async () => {
  const { user, search } = await open();
  const [first, last] = [
    screen.getByLabelText('From one day to another: first'),
    screen.getByLabelText('From one day to another: last'),
  ];
  await user.clear(first);
  await user.type(first, '2026-09-10');
  await user.clear(last);
  await user.type(last, '2026-09-01');
  await user.click(screen.getAllByRole('button', { name: 'Take' })[0]!);
  expect((await screen.findByRole('alert')).textContent).toMatch(/comes before the first/);
  expect(search().get('days')).toBeNull();
  await user.clear(last);
  await user.type(last, '2026-09-12');
  await user.click(screen.getAllByRole('button', { name: 'Take' })[0]!);
  await waitFor(() => expect(search().get('days')).toBe('2026-09-10~2026-09-12'));
});

test('other days stand beside: those before, and any', async () => {
  const { user, search } = await open('days=2026-09-10~2026-09-12');
  await user.click(screen.getByRole('radio', { name: 'the days before' }));
  expect(search().get('beside')).toBe('before');
  expect(screen.getByText(/beside 7 Sep – 9 Sep/)).toBeDefined();
});
