import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { aTermsPage } from '../../testing/builders';
import { Decline } from '../../testing/screen';
import { code, inHand, kit, movie, showSift, table } from '../testing';

describe('the line in hand', () => {
  test('the term in hand stays in hand when another person decides about one above it', async () => {
    const { user, answer } = showSift({
      'POST verdict': () => {
        throw new Decline('“bee hive kit” was kept by Tobias Finch, so nothing was changed.');
      },
    });
    const grid = await table(user);
    await user.keyboard('{ArrowDown}');
    await within(inHand()).findByText('bee hive kit');
    await within(inHand()).findByRole('button', { name: /^Keep/ });
    answer({ 'GET sift/terms': aTermsPage([kit, code]) });
    await user.keyboard('l');
    await waitFor(() => expect(within(grid).queryByText('movie')).toBeNull());
    expect(within(inHand()).getByText('bee hive kit')).toBeDefined();
    expect(within(grid).getByRole('row', { selected: true }).textContent).toContain('kit');
  });

  test('where the term in hand is gone, the one in its place is in hand; an undo brings it back', async () => {
    const { user, answer } = showSift({
      'POST verdict': { was: { is: 'open' }, said: 'Keep “bee hive kit” open' },
    });
    const grid = await table(user);
    await user.keyboard('{ArrowDown}');
    await within(inHand()).findByText('bee hive kit');
    await within(inHand()).findByRole('button', { name: /^Keep/ });
    answer({ 'GET sift/terms': aTermsPage([movie, code]) });
    await user.keyboard('o');
    await within(inHand()).findByText('LK-2041-S');
    answer({ 'GET sift/terms': aTermsPage([movie, kit, code]) });
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await within(inHand()).findByText('bee hive kit');
    expect(within(grid).getByRole('row', { selected: true }).textContent).toContain('kit');
  });

  test('other filters begin at the first line, whatever was in hand while their lines were on their way', async () => {
    const page = ({ query }: { query: Record<string, string> }) =>
      aTermsPage(query.holding ? [kit, movie] : [movie, code, kit]);
    const { user } = showSift({ 'GET sift/terms': page });
    await table(user);
    await within(inHand()).findByText('bee hive movie');
    await user.click((await screen.findAllByRole('button', { name: /^movie/ }))[0]!);
    await within(inHand()).findByText('bee hive kit');
    await user.click(await screen.findByRole('button', { name: /^Holding movie/ }));
    await within(inHand()).findByText('bee hive movie');
  });
});
