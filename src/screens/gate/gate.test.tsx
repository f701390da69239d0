import { screen, within } from '@testing-library/react';
import { expect, test } from 'vitest';
import type { GateAnswer } from '@/contracts/gate';
import { Decline, show } from '../testing/screen';
import { GateScreen } from './gate-screen';

const anAnswer = (over: Partial<GateAnswer> = {}): GateAnswer => ({
  ...{ text: 'bee hive movie', adGroups: 3, open: 1, stoppedByTray: 0, openedByTray: 0, stoppers: [] },
  campaigns: [
    {
      id: '1',
      name: 'Hives',
      status: 'live',
      open: 1,
      stopped: 1,
      stoppedIn: ['Stands'],
      openIn: ['Starter'],
    },
    { id: '2', name: 'Courses', status: 'paused', open: 0, stopped: 0, stoppedIn: [], openIn: [] },
  ],
  ...over,
});

test('asks nothing before a query is typed', async () => {
  const { asked } = show(<GateScreen />);
  expect(await screen.findByText('Nothing is asked yet.')).toBeDefined();
  expect(asked('GET gate')).toEqual([]);
});

test('says where the query gets through, what stops it, and what the tray would change', async () => {
  const stopper = {
    ...{
      text: 'movie',
      match: 'phrase' as const,
      place: { kind: 'list' as const, id: '7' },
      placeName: 'list Films',
    },
    ...{ adGroups: 2, campaigns: ['A', 'B', 'C', 'D', 'E'], state: 'in the tray' as const },
  };
  const { asked } = show(<GateScreen />, {
    answers: { 'GET gate': anAnswer({ stoppers: [stopper], stoppedByTray: 2 }) },
    search: 'query=Bee+Hive+Movie',
  });
  expect((await screen.findByTestId('gate-answer')).textContent).toContain(
    'Through in 1, stopped in 2 ad groups',
  );
  const stops = screen.getByRole('grid', { name: 'What stops it' });
  expect(stops.textContent).toContain('list Films');
  expect(stops.textContent).toContain('A, B, C, D, E');
  expect(screen.getByText(/be stopped in 2 ad groups more/)).toBeDefined();
  const campaigns = within(screen.getByRole('grid', { name: 'Campaign by campaign' })).getAllByRole('row');
  expect(campaigns.map((row) => row.textContent)).toEqual([
    expect.stringContaining('it passes in'),
    expect.stringContaining('Stands'),
    expect.stringContaining('paused: serves nothing'),
  ]);
  expect(asked('GET gate')[0]!.query).toEqual({ query: 'Bee Hive Movie' });
});

test.each([
  [anAnswer({ text: '' }), /holds no word/],
  [anAnswer({ open: 3 }), /Through everywhere/],
  [anAnswer({ open: 0 }), /Stopped everywhere/],
  [anAnswer({ openedByTray: 1 }), /pass in 1 ad group more/],
])('answer %#', async (answer, said) => {
  show(<GateScreen />, { answers: { 'GET gate': answer }, search: 'query=x' });
  expect((await screen.findAllByText(said)).length).toBeGreaterThan(0);
});

test('what is declined says why', async () => {
  show(<GateScreen />, {
    answers: {
      'GET gate': () => {
        throw new Decline('There is no account web.');
      },
    },
    search: 'query=x',
  });
  expect(await screen.findByText('There is no account web.')).toBeDefined();
});
