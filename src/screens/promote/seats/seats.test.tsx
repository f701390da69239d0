import { screen, waitFor, within } from '@testing-library/react';
import { expect, test } from 'vitest';
import { aGroup, aSeat, aView, bare, drafted, grid, inHand, showPromote } from '../testing';

test('seats are told of each group, those that are gone or serve nothing too; another one is chosen, with its undo', async () => {
  const group = aGroup({
    gone: [{ match: 'phrase', campaign: 'Hives', adGroup: 'Old phrase' }],
    seats: { ...aGroup().seats, exact: { ...aSeat('Hives exact'), isChosen: true, state: 'in the tray' } },
  });
  const { user, asked } = showPromote('?shown=seats', {
    'GET promotion': aView({ groups: [group] }),
    'PUT promotion/seat': {
      said: 'The broad seat of Hives is Hives · Stands',
      was: null,
      group: 'group Hives',
      isMade: true,
    },
  });
  const row = within(await grid('Seats', /Hives/)).getByRole('row', { name: /Hives/ });
  expect(row.textContent).toContain('Old phrase is gone');
  expect(row.textContent).toContain('in the tray');
  expect(inHand().textContent).toContain('nothing is left to it before it serves');
  await user.click(within(inHand()).getByRole('button', { name: 'broad seat' }));
  await user.click(await screen.findByRole('option', { name: /Hives · Starter/ }));
  await waitFor(() =>
    expect(asked('PUT promotion/seat')[0]!.body).toEqual({
      ...{ group: 'group Hives', match: 'broad', seat: { campaign: 'Hives', adGroup: 'Starter' } },
      unmakes: false,
    }),
  );
  await user.click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() =>
    expect(asked('PUT promotion/seat')[1]!.body).toMatchObject({ seat: null, unmakes: true }),
  );
});

test('seats that are missing are made: in a campaign that is there, or in a new one with a budget', async () => {
  const { user, asked } = showPromote('?shown=seats', {
    'GET promotion': aView({ groups: [bare] }),
    'POST promotion/seats': { outcomes: [drafted(4)], group: 'group Courses', isMade: true, was: {} },
    'PUT promotion/seat': { said: '', was: null, group: 'group Courses', isMade: true },
  });
  await grid('Seats', /Courses/);
  expect(inHand().textContent).toContain('It becomes one when a seat is chosen');
  expect(inHand().textContent).toContain('It has no target');
  await user.click(await within(inHand()).findByRole('button', { name: 'Put the seats in the tray' }));
  expect(await screen.findByText('Give the daily budget as an amount above 0.')).toBeDefined();
  await user.type(within(inHand()).getByRole('textbox', { name: 'Daily budget' }), '12');
  await user.click(within(inHand()).getByRole('checkbox', { name: 'Courses broad' }));
  await user.click(within(inHand()).getByRole('button', { name: 'Put the seats in the tray' }));
  await waitFor(() =>
    expect(asked('POST promotion/seats')[0]!.body).toEqual({
      ...{
        group: 'campaign 2',
        matches: ['exact', 'phrase'],
        campaign: 'Courses seats',
        budgetMicros: 12_000_000,
      },
    }),
  );
  await user.click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(asked('DELETE tray')[0]!.body).toEqual({ changeIds: [4] }));
  await waitFor(() => expect(asked('PUT promotion/seat')).toHaveLength(2));
});
