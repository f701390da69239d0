import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { EditPlan } from '@/contracts/list-edits';
import { aListLine, aListsView, aWeight } from '../testing/builders';
import { Decline, show, type Answers } from '../testing/screen';
import { ListsScreen } from './lists-screen';

const few = { count: 0, first: [] };
const aPlan = (over: Partial<EditPlan> = {}): EditPlan => ({
  ...{ said: 'Paste 2 entries into Films', changes: 2, some: ['Stop “movie” (phrase) in list Films'] },
  ...{ refused: few, twice: 0, already: 0, folded: few, stops: aWeight(), reopens: aWeight(), touched: [] },
  ...{ protectedTerms: few, reaches: { everywhere: false, campaigns: ['Hives'] }, over: [], proof: null },
  ...over,
});
const outcome = {
  changeIds: [3, 4],
  said: 'Paste 2 entries into Films: in the tray',
  heldBack: null,
  refused: few,
};
const stopped = {
  ...{
    terms: 9,
    clicks: 30,
    costMicros: 18_000_000,
    returningTerms: 0,
    conversions: 0,
    unknown: 0,
    known: 1,
  },
};

const ANSWERS: Answers = {
  'GET lists': aListsView(),
  'GET lists/health': { lists: { '1': { stopped, redundant: 2, last: null } } },
  'GET lists/could-be': { sets: [] },
  'GET lists/account-wide': { used: 0, most: 1_200, entries: [] },
  'POST lists/plan': aPlan(),
  'POST lists/edit': outcome,
};
const showLists = (more: Answers = {}, search = '') =>
  show(<ListsScreen />, { answers: { ...ANSWERS, ...more }, search });
const inHand = () => screen.getByRole('region', { name: 'In hand' });

describe('the lists', () => {
  test('say what they hold, where they hang and what they stopped', async () => {
    showLists();
    const grid = await screen.findByRole('grid', { name: 'Shared lists' });
    expect(within(grid).getByText('Films')).toBeDefined();
    expect(await within(inHand()).findByText(/Hangs on 1 campaign: Hives/)).toBeDefined();
    expect(
      await within(inHand()).findByText(/Stopped 9 terms: 30 clicks, .*18.00 saved in 30 days/),
    ).toBeDefined();
    expect(screen.getByRole('link', { name: 'XLSX' }).getAttribute('href')).toBe(
      '/api/web/lists/1/file?as=xlsx',
    );
  });

  test('there may be none yet', async () => {
    showLists({ 'GET lists': aListsView({ lists: [] }) });
    expect(await screen.findByText(/No list yet. Make one or paste lines/)).toBeDefined();
  });

  test('a new one is drafted under an id of its own, with what it holds', async () => {
    const { user, asked } = showLists({
      'POST tray': { outcomes: [{ outcome: 'refused', said: 'There is a list named Films already.' }] },
    });
    await user.click(await screen.findByRole('button', { name: 'New list' }));
    await user.type(screen.getByLabelText('Name of the new list'), ' Films ');
    await user.selectOptions(screen.getByLabelText('What it holds'), 'placements');
    await user.click(screen.getByRole('button', { name: 'Make it' }));
    expect(await screen.findByText('There is a list named Films already.')).toBeDefined();
    expect(asked('POST tray')[0]!.body).toEqual({
      changes: [
        {
          change: {
            ...{ kind: 'make list', name: 'Films', holds: 'placements' },
            listId: expect.stringMatching(/^new:[\da-f-]{36}$/) as string,
          },
        },
      ],
    });
  });

  test('one is hung on the whole account, and renamed', async () => {
    const { user, asked } = showLists({
      'POST tray': { outcomes: [{ outcome: 'already there', said: 'This is in the tray already.' }] },
    });
    await user.click(await screen.findByRole('button', { name: 'Hang on the whole account' }));
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect(asked('POST tray')[0]!.body).toEqual({
      changes: [{ change: { kind: 'hang list', listId: '1', campaignId: null } }],
    });
    await user.click(screen.getByRole('button', { name: 'Rename' }));
    const name = await screen.findByLabelText('New name');
    await user.clear(name);
    await user.type(name, 'Careers{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(2));
    expect(asked('POST tray')[1]!.body).toEqual({
      changes: [{ change: { kind: 'rename list', listId: '1', name: 'Careers', was: 'Jobs' } }],
    });
  });

  test('a rule that wants it elsewhere is followed at a press, or dropped', async () => {
    const ruled = aListLine({
      wanted: [1],
      rules: [
        {
          id: 6,
          rule: { nameHolds: ['Courses'] },
          said: 'all campaigns named Courses',
          by: 'Tobias Finch',
          except: [],
        },
      ],
    });
    const { user, asked } = showLists({
      'GET lists': aListsView({ lists: [ruled] }),
      'POST tray': { outcomes: [{ outcome: 'already there', said: 'This is in the tray already.' }] },
      'DELETE lists/rules/[rule]': {},
    });
    await user.click(await screen.findByRole('button', { name: 'Hang it there' }));
    await waitFor(() =>
      expect(asked('POST tray')[0]!.body).toMatchObject({ changes: [{ change: { campaignId: '2' } }] }),
    );
    await user.click(screen.getByRole('button', { name: 'Drop the rule' }));
    await waitFor(() => expect(asked('DELETE lists/rules/[rule]')[0]!.params).toEqual({ rule: '6' }));
    await waitFor(() => expect(asked('GET lists')).toHaveLength(2));
  });
});

describe('edits', () => {
  test('pasted lines are planned while they are typed, and put in with an undo', async () => {
    const { user, asked } = showLists({ 'DELETE tray': { removed: [] } });
    await screen.findByRole('grid', { name: 'Shared lists' });
    await user.click(screen.getAllByRole('button', { name: 'Paste lines' })[0]!);
    const dialog = await screen.findByRole('dialog');
    await user.type(within(dialog).getByLabelText('Lines'), 'movie');
    expect(within(dialog).getByText('Give the new list a name.')).toBeDefined();
    await user.selectOptions(within(dialog).getByLabelText('Into'), 'Films');
    expect(await within(dialog).findByText(/Reaches 1 campaign: Hives/)).toBeDefined();
    await user.click(within(dialog).getByRole('button', { name: 'Put in the tray' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(asked('POST lists/edit')[0]!.body).toEqual({
      edit: { do: 'paste', into: { id: '2' }, holds: 'words', text: 'movie', match: 'phrase' },
    });
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('DELETE tray')[0]!.body).toEqual({ changeIds: [3, 4] }));
  });

  test('what lines are left out, what is hurt and what is over a limit is said', async () => {
    const plan = aPlan({
      ...{ twice: 2, already: 1, over: ['list Films would hold 4,002 negatives; its limit is 4,000.'] },
      refused: { count: 1, first: [{ line: 3, raw: '???', reason: 'A negative needs a word' }] },
      protectedTerms: { count: 1, first: ['bee hive kit'] },
      ...{ stops: aWeight({ terms: 3, clicks: 8, costMicros: 2_000_000, conversions: 1 }), changes: 0 },
    });
    const { user } = showLists({ 'POST lists/plan': plan });
    await screen.findByRole('grid', { name: 'Shared lists' });
    await user.click(screen.getAllByRole('button', { name: 'Paste lines' })[0]!);
    const dialog = await screen.findByRole('dialog');
    await user.type(within(dialog).getByLabelText('Name of the new list'), 'New');
    await user.type(within(dialog).getByLabelText('Lines'), 'a');
    expect(await within(dialog).findByText(/It can not be sent like this/)).toBeDefined();
    expect(within(dialog).getByText(/2 lines say what another line says/)).toBeDefined();
    expect(within(dialog).getByText(/1 entry stands there already/)).toBeDefined();
    expect(within(dialog).getByText(/A negative needs a word/)).toBeDefined();
    expect(within(dialog).getByText(/Stops 3 terms: 8 clicks, .*2.00 spent, 1 conversion/)).toBeDefined();
    expect(within(dialog).getByRole('button', { name: 'Put in the tray' })).toHaveProperty('disabled', true);
  });

  test('a file is read first, and each of its lists is shown after the one before', async () => {
    const { user } = showLists({
      'POST lists/read-file': {
        lists: [
          { name: 'Jobs', holds: 'words', text: 'salary' },
          { name: 'Films', holds: 'words', text: 'movie' },
        ],
      },
    });
    await screen.findByRole('grid', { name: 'Shared lists' });
    await user.click(screen.getAllByRole('button', { name: 'Paste lines' })[0]!);
    const dialog = await screen.findByRole('dialog');
    await user.upload(within(dialog).getByLabelText(/or take a file/), new File(['x'], 'lists.csv'));
    expect(await within(dialog).findByText(/The file holds 1 more/)).toBeDefined();
    expect(within(dialog).getByLabelText('Lines')).toHaveProperty('value', 'salary');
    await within(dialog).findByTestId('plan');
    await user.click(within(dialog).getByRole('button', { name: 'Put in the tray' }));
    await waitFor(() => expect(within(dialog).getByLabelText('Lines')).toHaveProperty('value', 'movie'));
  });

  test('what is held back can be forced with a reason', async () => {
    const heldBack = { count: 1, said: 'Held back: it would stop a protected term, “bee hive kit”.' };
    const { user, asked, answer } = showLists({ 'POST lists/edit': { ...outcome, heldBack } });
    await user.click(await screen.findByRole('button', { name: 'Drop what is needless' }));
    await user.click(await within(inHand()).findByRole('button', { name: 'Put in the tray' }));
    answer({ 'POST lists/edit': outcome });
    await user.type(await within(inHand()).findByLabelText(/Reason to force it/), 'sold out');
    await user.click(within(inHand()).getByRole('button', { name: 'Force it, with this reason' }));
    await waitFor(() => expect(asked('POST lists/edit')).toHaveLength(2));
    expect(asked('POST lists/edit')[1]!.body).toEqual({
      edit: { do: 'drop needless', list: '1' },
      forcedBecause: 'sold out',
    });
  });

  test('a merge is proved before it is put in', async () => {
    const { user, asked } = showLists({
      'POST lists/plan': aPlan({
        proof: { adGroups: 12, same: true, said: 'What is in force is the same in each of them.' },
      }),
    });
    await user.click(await screen.findByRole('button', { name: 'Merge' }));
    await user.selectOptions(await within(inHand()).findByRole('combobox'), 'Films');
    expect(await screen.findByText(/Proved: no gate answers otherwise/)).toBeDefined();
    expect(asked('POST lists/plan').at(-1)!.body).toEqual({ edit: { do: 'merge', list: '1', from: '2' } });
  });
});

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
            what: 'changed',
            state: 'own',
            said: ['added “salary” (broad)'],
          },
          { id: 30, at: '2026-11-01T10:00:00Z', by: null, what: 'made', state: 'own', said: [] },
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
    { id: 41, at: '2026-11-24T10:00:00Z', said: 'Pause “bee hive” (broad)' },
    { id: 42, at: '2026-11-24T10:00:00Z', said: 'Stop “foreign” (phrase)' },
  ];
  const waiting = [
    {
      ...{ id: 51, at: '2026-11-24T10:00:00Z', by: null, what: 'changed' as const, state: 'waits' as const },
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
