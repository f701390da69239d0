import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { LedgerLine } from '@/contracts/ledger';
import type { SavedOfChange, SavedSoFar } from '@/contracts/saved';
import { aLedgerLine, aListLine, aListsView, aWeight } from '../testing/builders';
import { choose, show } from '../testing/screen';
import { LedgerScreen } from './ledger-screen';

const figures = { impressions: 90, clicks: 12, costMicros: 7_500_000, conversions: 0, valueMicros: 0 };
const aSentLine = (over: Partial<NonNullable<LedgerLine['change']>> = {}): LedgerLine =>
  aLedgerLine({
    ...{ id: 2, about: 'change', what: 'Stop “movie” (phrase) in campaign Hives', canUndo: false },
    change: {
      ...{ id: 21, state: 'there', undoneBy: null, sentDay: '2026-11-10' },
      undo: { kind: 'remove negative', text: 'movie', match: 'phrase', place: { kind: 'campaign', id: '1' } },
      beside: null,
      before: { days: 30, terms: 4, figures },
      since: {
        ...{ days: 12, here: aWeight({ terms: 1, costMicros: 0 }) },
        elsewhere: aWeight({ terms: 2, clicks: 3, costMicros: 1_250_000 }),
        slips: [
          { text: 'hive movie', adGroup: 'Weekend', campaign: 'Courses', clicks: 3, costMicros: 1_250_000 },
        ],
      },
      ...over,
    },
  });
const NOTHING_SAVED: SavedSoFar = { soFar: null, changes: [] };
const page = (...lines: LedgerLine[]) => ({
  ...{ 'GET ledger': { lines, next: null }, 'GET ledger/saved': NOTHING_SAVED },
});
const FIGURES = { days: 12, predictedMicros: 3_000_000, realMicros: 1_750_000 };
const WEEKS = [
  { from: '2026-11-11', days: 5, predictedMicros: 1_250_000, realMicros: 2_000_000 },
  { from: '2026-11-16', days: 7, predictedMicros: 1_750_000, realMicros: -250_000 },
];
const aSaved = (over: Partial<SavedOfChange> = {}): SavedOfChange => ({
  ...{ ...FIGURES, weeks: WEEKS, to: '2026-11-22', isTakenBack: false, isGone: false },
  likely: [2_500_000, 3_500_000],
  ...{ trafficMicros: 0, backMicros: 1_250_000, backPredictedMicros: 0, stillMicros: 0 },
  otherForms: { costMicros: 0, beforeMicros: 0, first: [] },
  tray: { ...FIGURES, weeks: WEEKS, changes: 1, sentDay: '2026-11-10' },
  ...over,
});
/** A sent change, and what it saved. */
const pageSaved = (over: Partial<SavedOfChange> = {}) => ({
  'GET ledger': { lines: [aSentLine()], next: null },
  'GET ledger/saved': {
    soFar: { ...FIGURES, weeks: WEEKS, since: '2026-11-11', trays: 1, changes: 1 },
    changes: [{ id: 21, ...FIGURES }],
  },
  'GET ledger/saved/[change]': aSaved(over),
});
const inHand = () => screen.getByRole('region', { name: 'In hand' });

describe('the ledger', () => {
  test('is filtered by who did it, and by what it is about', async () => {
    const lists = aListsView({ lists: [aListLine({ id: '7', name: 'Songs' })] });
    const { user, asked } = show(<LedgerScreen />, {
      answers: { ...page(aLedgerLine()), 'GET lists': lists },
      search: '?term=bee%20hive%20movie',
    });
    expect(await screen.findByText('the term “bee hive movie”')).toBeDefined();
    await waitFor(() => expect(asked('GET ledger').at(-1)!.query).toMatchObject({ term: 'bee hive movie' }));
    await choose(user, screen.getByRole('combobox', { name: 'Who did it' }), 'Tobias Finch');
    await waitFor(() => expect(asked('GET ledger').at(-1)!.query).toMatchObject({ who: '2' }));
    await user.click(screen.getByRole('button', { name: 'On what' }));
    await user.click(await screen.findByText('Songs'));
    await waitFor(() => expect(asked('GET ledger').at(-1)!.query).toEqual({ who: '2', on: 'list:7' }));
    await user.click(screen.getByRole('button', { name: 'On anything' }));
    await waitFor(() => expect(asked('GET ledger').at(-1)!.query).toEqual({ who: '2' }));
  });

  test('is empty at first', async () => {
    show(<LedgerScreen />, { answers: page() });
    expect(await screen.findByText('Nothing was changed yet.')).toBeDefined();
  });

  test('beside what was sent stands what it cost before, since, and elsewhere', async () => {
    show(<LedgerScreen />, { answers: page(aSentLine()) });
    await screen.findByRole('row', { name: /Stop “movie”/ });
    expect(inHand().textContent).toContain('7.50');
    expect(screen.getByRole('columnheader', { name: /^slips/ })).toBeDefined();
    expect(within(inHand()).getByText(/Still slips through, served elsewhere/)).toBeDefined();
    expect(within(inHand()).getByText('hive movie')).toBeDefined();
  });

  test.each([
    [{ state: 'said' }, /Said to be done. A structure file/],
    [{ state: 'refused' }, /The platform refused it/],
    [{ state: 'missing' }, /was looked for there, and is missing/],
    [{ since: null }, /No report reaches the day it was sent yet/],
  ])('%j is told in hand', async (over, said) => {
    show(<LedgerScreen />, { answers: page(aSentLine(over)) });
    expect(await within(inHand()).findByText(said)).toBeDefined();
  });

  test('its cost in these days stands beside that of others, with the difference', async () => {
    const beside = {
      now: { clicks: 1, costMicros: 500_000, conversions: 0 },
      then: { clicks: 12, costMicros: 7_500_000, conversions: 0 },
    };
    const { asked } = show(<LedgerScreen />, {
      answers: page(aSentLine({ beside })),
      search: 'beside=2026-09-01~2026-09-30',
    });
    const row = await screen.findByRole('row', { name: /Stop “movie”/ });
    expect(row.textContent).toContain('−7.00');
    expect(asked('GET ledger')[0]!.query).toEqual({ beside: '2026-09-01~2026-09-30' });
  });

  test('older entries come page by page', async () => {
    const { asked } = show(<LedgerScreen />, {
      answers: {
        'GET ledger': ({ query }) =>
          query.before === undefined
            ? { lines: [aLedgerLine({ id: 9 })], next: 9 }
            : { lines: [aLedgerLine({ id: 3, what: 'Keep “hive tool” open' })], next: null },
      },
    });
    expect(await screen.findByText('Keep “hive tool” open')).toBeDefined();
    expect(asked('GET ledger').map(({ query }) => query)).toEqual([{}, { before: '9' }]);
  });

  test('are sorted by any column, filtered and searched, all in the address', async () => {
    const { user, asked, search } = show(<LedgerScreen />, {
      answers: page(aLedgerLine({ id: 1, who: 'Tobias Finch' }), aLedgerLine({ id: 2, who: 'Ilse Brandow' })),
    });
    const first = () => screen.getAllByRole('row')[1]!.textContent;
    await screen.findByRole('row', { name: /Ilse Brandow/ });
    expect(first()).toContain('Tobias Finch');
    await user.click(screen.getByRole('button', { name: 'who' }));
    await waitFor(() => expect(first()).toContain('Ilse Brandow'));
    await user.type(screen.getByLabelText('Entries that say this'), 'kit');
    await choose(user, screen.getByLabelText('What it is about'), 'notes');
    await waitFor(() => expect(asked('GET ledger').at(-1)!.query).toEqual({ about: 'note', find: 'kit' }));
    expect(search().get('by')).toBe('who');
  });

  test('the key u undoes the entry in hand', async () => {
    const { user, asked } = show(<LedgerScreen />, {
      answers: { ...page(aLedgerLine()), 'POST ledger/entries/[entry]/undo': { said: 'Taken back' } },
    });
    const grid = await screen.findByRole('grid', { name: 'Entries of the ledger' });
    await within(grid).findByRole('button', { name: /^Undo/ });
    grid.focus();
    await user.keyboard('u');
    expect(await screen.findByText('Taken back')).toBeDefined();
    expect(asked('POST ledger/entries/[entry]/undo')).toHaveLength(1);
  });
});

describe('undo', () => {
  test('of what applied at once, from its entry', async () => {
    const { user, asked, answer } = show(<LedgerScreen />, {
      answers: {
        ...page(aLedgerLine()),
        'POST ledger/entries/[entry]/undo': { said: 'Taken back: Keep “bee hive kit” open' },
      },
    });
    const undo = await screen.findByRole('button', { name: 'Undo: Keep “bee hive kit” open' });
    answer(page(aLedgerLine({ isUndone: true, canUndo: false })));
    await user.click(undo);
    expect(await screen.findByText('Taken back: Keep “bee hive kit” open')).toBeDefined();
    expect(await screen.findByText('undone')).toBeDefined();
    expect(asked('POST ledger/entries/[entry]/undo')[0]!.params).toEqual({ entry: '1' });
  });

  test('of what was sent is a change in the tray', async () => {
    const line = aSentLine();
    const { user, answer } = show(<LedgerScreen />, {
      answers: {
        ...page(line),
        'POST ledger/[change]/undo': {
          ...{ outcome: 'drafted', changeId: 8, said: 'Let “movie” (phrase) through again', heed: null },
          change: line.change!.undo,
        },
      },
    });
    const undo = await screen.findByRole('button', { name: /^Undo: Stop “movie”/ });
    answer(page(aSentLine({ undoneBy: 'drafted' })));
    await user.click(undo);
    expect(await screen.findByText('In the tray: Let “movie” (phrase) through again')).toBeDefined();
    await waitFor(() => expect(screen.getByText('undo in the tray')).toBeDefined());
  });

  test('is not offered for what can not be undone', async () => {
    show(<LedgerScreen />, {
      answers: page(aLedgerLine({ canUndo: false }), aSentLine({ state: 'missing' })),
    });
    await within(screen.getByRole('grid')).findByText('Keep “bee hive kit” open');
    expect(screen.queryByRole('button', { name: /^Undo/ })).toBeNull();
  });
});

describe('what was saved', () => {
  test('stands beside what was predicted: of all so far, of each change, and by week', async () => {
    show(<LedgerScreen />, { answers: pageSaved() });
    const soFar = await screen.findByRole('region', { name: 'Saved so far' });
    expect(soFar.textContent).toContain('Saved so far about 1.75 of 3.00 predicted, in 12 days from 11 Nov');
    const row = await screen.findByRole('row', { name: /Stop “movie”/ });
    expect(row.textContent).toMatch(/3\.00in 12 days.*1\.75in 12 days/);
    const saved = await within(inHand()).findByTestId('saved');
    expect(saved.textContent).toContain('Saved about 1.75 in 12 days; 3.00 predicted.');
    const cells = within(saved)
      .getAllByRole('cell', { hidden: true })
      .map((cell) => cell.textContent);
    expect(cells).toEqual(['11 Nov', '5', '1.25', '2.00', '16 Nov', '7', '1.75', '−0.25']);
  });

  test.each([
    [{ trafficMicros: -500_000 }, 'Less traffic: its terms would have cost 0.50 less.'],
    [{ trafficMicros: 500_000 }, 'More traffic: its terms would have cost 0.50 more.'],
    [{}, 'Came back elsewhere: 1.25.'],
    [{ backPredictedMicros: 900_000 }, 'Came back elsewhere: 1.25; 0.90 predicted to come back.'],
    [
      { backMicros: -100_000, backPredictedMicros: 900_000 },
      'Elsewhere its terms cost no more than before; 0.90 predicted to come back.',
    ],
    [{ stillMicros: 2_000_000 }, 'Still served where it acts: 2.00.'],
    [{ isTakenBack: true }, 'It was taken back, and counts to 22 Nov.'],
    [{ isGone: true }, 'Some of what it stopped is open again'],
    [
      {
        otherForms: {
          ...{ costMicros: 800_000, beforeMicros: 200_000 },
          first: [{ text: 'hive movies', costMicros: 800_000 }],
        },
      },
      'Other forms of its words cost 0.80, before 0.20: hive movies.',
    ],
    [{ realMicros: 2_600_000 }, 'As it was to be expected: in nine cases of ten, 2.50 to 3.50.'],
    [{ realMicros: -1_000_000 }, 'Cost about 1.00 in 12 days'],
    [{ predictedMicros: null, backPredictedMicros: null, trafficMicros: null }, 'nothing was predicted'],
    [
      { tray: { ...FIGURES, weeks: WEEKS, changes: 14, sentDay: '2026-11-10' } },
      'Its tray of 10 Nov, 14 changes: saved 1.75 of 3.00 predicted.',
    ],
  ] satisfies [Partial<SavedOfChange>, string][])('%j is said in words', async (over, said) => {
    show(<LedgerScreen />, { answers: pageSaved(over) });
    expect((await within(inHand()).findByTestId('saved')).textContent).toContain(said);
  });

  test('nothing is said of it before data have come', async () => {
    const { asked } = show(<LedgerScreen />, { answers: page(aSentLine({ since: null })) });
    await within(inHand()).findByText(/No report reaches the day it was sent yet/);
    expect(screen.queryByRole('region', { name: 'Saved so far' })).toBeNull();
    expect(asked('GET ledger/saved/[change]')).toEqual([]);
  });
});
