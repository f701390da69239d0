import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { aListLine, aListsView, aWeight } from '../testing/builders';
import { choose } from '../testing/screen';
import { aPlan, inHand, outcome, showLists } from './testing';

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
    await choose(user, screen.getByLabelText('What it holds'), 'placements');
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
    await choose(user, within(dialog).getByLabelText('Into'), 'Films');
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
    await choose(user, await within(inHand()).findByRole('combobox', { name: /erge/ }), 'Films');
    expect(await screen.findByText(/Proved: no gate answers otherwise/)).toBeDefined();
    expect(asked('POST lists/plan').at(-1)!.body).toEqual({ edit: { do: 'merge', list: '1', from: '2' } });
  });
});
