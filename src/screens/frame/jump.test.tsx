import { screen, waitFor, within } from '@testing-library/react';
import { useRouter } from 'next/navigation';
import { expect, test, vi } from 'vitest';
import { AccountScreen } from '../account/account-screen';
import { aListsView, anAccountView, aTermLine, aTermsPage } from '../testing/builders';
import { show } from '../testing/screen';
import { Jump } from './jump';
import { SETTINGS } from './screens';

const ANSWERS = {
  'GET lists': aListsView(),
  'GET sift/terms': aTermsPage([aTermLine({ raw: 'bee hive movie' })]),
};

test('Ctrl K goes to a screen by its name', async () => {
  const { user } = show(<Jump commands={[]} />, { answers: ANSWERS });
  await user.keyboard('{Control>}k{/Control}');
  await user.keyboard('ledg{Enter}');
  await waitFor(() => expect(useRouter().push).toHaveBeenLastCalledWith('/web/ledger'));
  expect(screen.queryByRole('dialog')).toBeNull();
});

test('it finds search terms, lists and campaigns, and asks the gate', async () => {
  const { user } = show(<Jump commands={[]} />, { answers: ANSWERS });
  await user.keyboard('{Control>}k{/Control}');
  const dialog = await screen.findByRole('dialog');
  expect(await within(dialog).findByText('Films')).toBeDefined();
  await user.keyboard('movie');
  expect(await within(dialog).findByText('bee hive movie')).toBeDefined();
  await user.click(await within(dialog).findByText('Would “movie” get through?'));
  expect(useRouter().push).toHaveBeenLastCalledWith('/web/gate?query=movie');
});

test('it runs commands', async () => {
  const run = vi.fn();
  const { user } = show(<Jump commands={[{ name: 'Light or dark', run }]} />, { answers: ANSWERS });
  await user.keyboard('{Control>}k{/Control}');
  await user.keyboard('dark{Enter}');
  expect(run).toHaveBeenCalledTimes(1);
});

test('each setting that it knows stands on the Account screen', async () => {
  show(<AccountScreen />, {
    answers: {
      'GET account': anAccountView(),
      'GET account/codes': { caught: 0, of: 0, first: [] },
      'GET account/platform': { accounts: [] },
    },
  });
  for (const name of SETTINGS) expect(await screen.findByRole('heading', { name })).toBeDefined();
});
