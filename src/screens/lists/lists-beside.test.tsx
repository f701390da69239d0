import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { aListsView } from '../testing/builders';
import { Decline, type Answers } from '../testing/screen';
import { inHand, showLists } from './testing';

describe('beside a list', () => {
  test('its history, with what can be put back', async () => {
    const { user, asked } = showLists({
      'GET lists/[list]/history': {
        list: { id: '1', name: 'Jobs' },
        versions: [
          {
            id: 31,
            at: '2026-11-20T10:00:00Z',
            by: 'Tobias Finch',
            on: null,
            what: 'changed',
            state: 'own',
            said: ['added “salary” (broad)'],
          },
          { id: 30, at: '2026-11-01T10:00:00Z', by: null, on: null, what: 'made', state: 'own', said: [] },
        ],
      },
    });
    await user.click(await screen.findByRole('button', { name: 'History' }));
    expect(await within(inHand()).findByText(/added “salary” \(broad\)/)).toBeDefined();
    expect(asked('GET lists/[list]/history')[0]!.params).toEqual({ list: '1' });
  });

  test('what it shares with another', async () => {
    const { user } = showLists({
      'GET lists/[list]/compare': {
        ...{ first: { id: '1', name: 'Jobs' }, second: { id: '2', name: 'Films' }, covered: [] },
        onlyFirst: [{ text: 'salary', match: 'broad' }],
        ...{ onlySecond: [{ text: 'movie', match: 'phrase' }], both: [] },
      },
    });
    await user.click(await screen.findByRole('button', { name: 'Compare' }));
    expect(await within(inHand()).findByText(/salary/)).toBeDefined();
    expect(within(inHand()).getByText(/movie/)).toBeDefined();
  });

  test('what its terms cost in these days stands beside other days', async () => {
    const { asked } = showLists(
      {
        'GET lists/beside': {
          lists: {
            '1': {
              now: { clicks: 2, costMicros: 1_000_000, conversions: 0 },
              then: { clicks: 30, costMicros: 21_500_000, conversions: 0 },
            },
          },
        },
      },
      'beside=2026-09-01~2026-09-30',
    );
    const row = await screen.findByRole('row', { name: /Jobs/ });
    await waitFor(() => expect(row.textContent).toContain('−20.50'));
    expect(asked('GET lists/beside')[0]!.query).toEqual({ beside: '2026-09-01~2026-09-30' });
  });

  test('a copy goes into the tray of another account, which has routes of its own', async () => {
    const { user, asked } = showLists({
      'GET lists/[list]/file': {
        ...{ gatepost: 'lists', version: 1 },
        lists: [
          { name: 'Jobs', holds: 'words', entries: [{ text: 'salary', match: 'broad' }], placements: [] },
        ],
      } as never,
    });
    await user.click(await screen.findByRole('button', { name: 'Copy to another account' }));
    await user.click(await within(inHand()).findByRole('button', { name: /Put|Copy/ }));
    await waitFor(() => expect(asked('POST lists/edit')).toHaveLength(1));
    expect(asked('POST lists/edit')[0]!.body).toMatchObject({
      edit: { do: 'paste', into: { make: 'Jobs' }, text: 'keyword\tmatch type\nsalary\tbroad' },
    });
    expect(await screen.findByText(/2 changes put in the tray of Larkfell market/)).toBeDefined();
  });
});

describe('what somebody else changed', () => {
  const outside = [
    { id: 41, at: '2026-11-24T10:00:00Z', said: 'Pause “bee hive” (broad)', by: null, on: null },
    {
      id: 42,
      at: '2026-11-24T10:00:00Z',
      said: 'Stop “foreign” (phrase)',
      by: 'Ilka Brandt',
      on: '2026-11-23',
    },
  ];
  const waiting = [
    {
      ...{
        id: 51,
        at: '2026-11-24T10:00:00Z',
        by: null,
        on: null,
        what: 'changed' as const,
        state: 'waits' as const,
      },
      ...{ said: ['removed “salary” (broad)'], listId: '1', listName: 'Jobs', isThere: true },
    },
  ];
  const found: Answers = { 'GET lists': aListsView({ outside, waiting }) };

  test('outside lists is taken over or undone, one by one or all', async () => {
    const { user, asked } = showLists(
      {
        ...found,
        'POST elsewhere/take-over': {},
        'POST elsewhere/undo': {
          outcomes: [{ outcome: 'refused', said: 'This keyword is not there any more.' }],
        },
      },
      'show=elsewhere',
    );
    const all = await screen.findByRole('list', { name: 'Changed elsewhere, outside lists' });
    await user.click(within(all).getAllByRole('button', { name: 'Take over' })[1]!);
    await waitFor(() => expect(asked('POST elsewhere/take-over')[0]!.body).toEqual({ ids: [42] }));
    await user.click(screen.getByRole('button', { name: 'Undo all' }));
    expect(await screen.findByText('This keyword is not there any more.')).toBeDefined();
    expect(asked('POST elsewhere/undo')[0]!.body).toEqual({ ids: [41, 42] });
  });

  test('in a list is taken over, and settled already when another was quicker', async () => {
    const { user, asked } = showLists(
      {
        ...found,
        'POST lists/versions/[version]': () => {
          throw new Decline('This is settled already.');
        },
      },
      'show=elsewhere',
    );
    const all = await screen.findByRole('list', { name: 'Changed elsewhere' });
    expect(within(all).getByText(/removed “salary” \(broad\)/)).toBeDefined();
    await user.click(within(all).getByRole('button', { name: 'Take over' }));
    expect(await screen.findByText('This is settled already.')).toBeDefined();
    expect(asked('POST lists/versions/[version]')[0]!.params).toEqual({ version: '51' });
  });
});

describe('entries', () => {
  test('are filtered by their text, and removed when they are marked', async () => {
    const entry = (text: string) => ({
      ...{ text, match: 'broad' as const, since: null, drafted: null, by: null, from: null, hurts: 0 },
    });
    const { user } = showLists(
      {
        'GET lists/[list]': {
          list: { id: '1', name: 'Jobs', holds: 'words', isNew: false, room: 3_998 },
          ...{
            reaches: { everywhere: false, campaigns: ['Hives'] },
            entries: [entry('salary'), entry('job')],
          },
        },
        'GET lists/[list]/health': { entries: {} },
        'GET sift/variants': {
          ...{ negative: { text: 'job', match: 'broad' }, place: { kind: 'list', id: '1' }, offers: [] },
        },
      },
      'show=entries&list=1',
    );
    expect((await screen.findByTestId('entries-shown')).textContent).toMatch(/room for/);
    await waitFor(() => expect(screen.getByTestId('entries-shown').textContent).toContain('2 entries'));
    await user.type(screen.getByLabelText('Text holds'), 'sal');
    await waitFor(() => expect(screen.getByTestId('entries-shown').textContent).toContain('1 of 2 entries'));
    await user.click(await within(inHand()).findByRole('button', { name: /Let through again/ }));
    expect(await within(inHand()).findByTestId('plan')).toBeDefined();
  });
});
