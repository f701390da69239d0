import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { Change } from '@/core';
import { anAccountView } from '../testing/builders';
import { choose, Decline } from '../testing/screen';
import { aRemainder, aRemaindersPage, aWeighed, inHand, showResearch } from './testing';

const ACCOUNT = { kind: 'account', id: null } as const;
const drafted = (change: Change) => ({
  outcomes: [{ outcome: 'drafted' as const, changeId: 5, said: 'Stop it', heed: null, change }],
});
const stop = (text: string): Change => ({ kind: 'add negative', text, match: 'phrase', place: ACCOUNT });
const table = (name = 'Remainders') => screen.findByRole('grid', { name });

describe('remainders', () => {
  test('stand beside what they are held by, and what stopping one would do', async () => {
    showResearch();
    const grid = await table();
    expect(await within(grid).findByText('near me')).toBeDefined();
    expect(within(grid).getByText('salaries')).toBeDefined();
    const hand = await waitFor(inHand);
    expect(await within(hand).findByText('12.30')).toBeDefined();
    expect(within(hand).getByText(/Safe: touches no live keyword/)).toBeDefined();
    expect(screen.getByRole('tab', { name: /Already stopped/ }).textContent).toContain('4');
    expect(screen.getByText('Half of it.')).toBeDefined();
  });

  test('Enter puts the one in hand in the tray, in the account’s match type; a digit picks a word of it', async () => {
    const { user, asked } = showResearch({ 'POST tray': drafted(stop('near me')) });
    const grid = await table();
    await within(grid).findByText('near me');
    grid.focus();
    await user.keyboard('{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect(asked('POST tray')[0]!.body).toMatchObject({
      changes: [{ change: { kind: 'add negative', text: 'near me', place: ACCOUNT } }],
    });
    await user.keyboard('1');
    await waitFor(() =>
      expect(asked('POST research/[sheet]/weigh').at(-1)!.body).toMatchObject({ texts: ['near'] }),
    );
    await user.keyboard('vm');
    await waitFor(() =>
      expect(asked('POST research/[sheet]/weigh').at(-1)!.body).toMatchObject({ withForms: false }),
    );
  });

  test('what would stop kept ideas is held back until there is a reason', async () => {
    const { user, asked } = showResearch({
      'POST research/[sheet]/weigh': aWeighed({ kept: 2 }),
      'POST tray': drafted(stop('near me')),
    });
    (await table()).focus();
    await within(inHand()).findByText('stops 2 kept');
    await user.keyboard('{Enter}');
    const alert = await within(inHand()).findByRole('alert');
    expect(alert.textContent).toContain('would stop ideas that are kept');
    expect(asked('POST tray')).toEqual([]);
    await user.type(within(alert).getByRole('textbox'), 'not ours to sell{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect(asked('POST tray')[0]!.body).toMatchObject({ changes: [{ forcedBecause: 'not ours to sell' }] });
  });

  test('are kept and dropped with their ideas, all that are marked at once', async () => {
    const { user, asked } = showResearch();
    const grid = await table();
    await within(grid).findByText('near me');
    grid.focus();
    await user.keyboard(' {ArrowDown} x');
    await waitFor(() => expect(asked('POST research/[sheet]/decide')).toHaveLength(1));
    expect(asked('POST research/[sheet]/decide')[0]!.body).toMatchObject({
      ...{ verdict: 'dropped', holding: { remainders: ['near me', 'salary'] } },
    });
    expect(await screen.findByText('1 idea dropped')).toBeDefined();
  });

  test('typed words are turned round and become the negatives', async () => {
    const { user, asked, search } = showResearch({ 'POST tray': drafted(stop('jobs')) });
    await table();
    await user.type(screen.getByLabelText('Words and runs, parted by commas'), 'jobs, near me{Enter}');
    await user.click(await screen.findByRole('button', { name: 'Show what would go' }));
    await waitFor(() => expect(search().get('holds')).toBe('any'));
    await user.click(screen.getByRole('button', { name: 'Stop the words typed' }));
    await waitFor(() =>
      expect(asked('POST research/[sheet]/weigh').at(-1)!.body).toMatchObject({ texts: ['jobs', 'near me'] }),
    );
  });

  test('a sheet that can not be shown says why, and none at all how to begin', async () => {
    showResearch({
      'GET research/[sheet]/remainders': () => {
        throw new Decline('There is no such research sheet.', 404);
      },
    });
    expect(await screen.findByText('There is no such research sheet.')).toBeDefined();
    showResearch({ 'GET research': { sheets: [] } });
    expect(await screen.findByText(/No research sheet yet/)).toBeDefined();
  });

  test('a place is chosen down to the ad group, and it is said where each idea came from', async () => {
    const { user, asked } = showResearch({ 'GET account': anAccountView() });
    await within(inHand()).findByText('from ideas of bee hive');
    await choose(user, within(inHand()).getByRole('combobox', { name: 'Place' }), 'campaign Hives');
    await choose(user, await within(inHand()).findByRole('combobox', { name: 'Ad group' }), /^ad group /);
    await waitFor(() =>
      expect(asked('POST research/[sheet]/weigh').at(-1)!.body).toMatchObject({ place: { kind: 'adGroup' } }),
    );
  });

  test('a place that is not served is marked', async () => {
    showResearch({
      'GET research/[sheet]/remainders': aRemaindersPage({
        lines: [aRemainder({ text: 'australia', forms: ['australia'], location: 'not served' })],
      }),
    });
    expect(await within(await table()).findByText('australia: not served')).toBeDefined();
  });
});

describe('places', () => {
  test('are said to be served, typed as words, or ordinary words', async () => {
    const { user, asked, search } = showResearch({
      'POST research/locations': { text: 'ireland', was: null },
    });
    await user.type(await screen.findByLabelText('Add a place that is served'), 'Ireland{Enter}');
    await user.click(await screen.findByRole('button', { name: 'reading is an ordinary word here' }));
    await waitFor(() =>
      expect(asked('POST research/locations').map(({ body }) => body)).toEqual([
        { text: 'Ireland', said: 'served' },
        { text: 'reading', said: 'no location' },
      ]),
    );
    await user.click(screen.getByRole('button', { name: /Show ideas that name australia/ }));
    await waitFor(() => expect(search().get('typed')).toBe('australia'));
  });
});

describe('groups', () => {
  const shown = (more = {}) => showResearch(more, '?shown=groups');

  test('open, are taken, named, merged and dropped by keys, with what is left over in sight', async () => {
    const { user, asked } = shown();
    const grid = await table('Groups');
    await within(grid).findByText('kit');
    expect(screen.getByRole('button', { name: '1 idea left over' })).toBeDefined();
    grid.focus();
    await user.keyboard('{ArrowDown}{ArrowRight}');
    expect(await within(grid).findByText('pine kit')).toBeDefined();
    await user.keyboard('{Enter}');
    const moves = () =>
      asked('POST research/[sheet]/groups').map(({ body }) => (body as { moves: object }).moves);
    const keys = ['oak kit', 'oak kit leeds', 'pine kit'];
    await waitFor(() => expect(moves()).toEqual([[{ keys, to: 'kit' }]]));
    await user.keyboard('n');
    const name = within(inHand()).getByRole('textbox', { name: 'Name of the group' });
    await waitFor(() => expect(document.activeElement).toBe(name));
    await user.clear(name);
    await user.type(name, 'Hive kits{Enter}');
    await waitFor(() => expect(moves().at(-1)).toEqual([{ keys, to: 'Hive kits' }]));
    grid.focus();
    await user.keyboard('w');
    await waitFor(() =>
      expect(moves().at(-1)).toEqual([
        { keys: ['oak kit', 'oak kit leeds'], to: 'oak kit' },
        { keys: ['pine kit'], to: 'pine kit' },
      ]),
    );
    await user.keyboard('x');
    await waitFor(() => expect(moves().at(-1)).toEqual([{ keys, to: null }]));
  });

  test('ideas that are marked are parted off', async () => {
    const { user, asked } = shown();
    const grid = await table('Groups');
    await within(grid).findByText('kit');
    grid.focus();
    await user.keyboard('{ArrowDown}{ArrowRight}{ArrowDown} {ArrowDown} p');
    const name = within(inHand()).getByRole('textbox', { name: 'Name of a new group' });
    await waitFor(() => expect(document.activeElement).toBe(name));
    await user.clear(name);
    await user.type(name, 'Wood{Enter}');
    await waitFor(() =>
      expect(asked('POST research/[sheet]/groups')[0]!.body).toEqual({
        moves: [{ keys: ['oak kit', 'oak kit leeds', 'pine kit'], to: 'Wood' }],
      }),
    );
  });

  test('are turned into a negative, and what is held back of it is said there', async () => {
    const { user, asked } = shown({
      'POST research/[sheet]/weigh': aWeighed({ text: 'Suits', kept: 1 }),
      'POST tray': drafted(stop('Suits')),
    });
    const grid = await table('Groups');
    await within(grid).findByText('Suits');
    grid.focus();
    await user.keyboard('s');
    await within(inHand()).findByText('stops 1 kept');
    await user.keyboard('s');
    const alert = await within(inHand()).findByRole('alert');
    expect(asked('POST tray')).toEqual([]);
    await user.type(within(alert).getByRole('textbox'), 'we sell none{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    await user.click(within(inHand()).getByRole('button', { name: 'Back to the group' }));
    expect(await within(inHand()).findByRole('button', { name: /Stop it/ })).toBeDefined();
  });

  test('say before which of their keywords would be stopped there', async () => {
    const by = '“bee” (broad) in list Insects';
    const { user, asked } = shown({
      'POST research/check-keywords': { count: 1, first: [{ text: 'bee suit', by }] },
    });
    await user.click(await screen.findByRole('button', { name: 'Make ad groups…' }));
    const dialog = await screen.findByRole('dialog');
    expect(
      await within(dialog).findByText(/1 keyword would be stopped there: “bee suit” by “bee”/),
    ).toBeDefined();
    expect(asked('POST research/check-keywords')[0]!.body).toEqual({ campaignId: null, texts: ['bee suit'] });
  });

  test('become a campaign with ad groups and keywords', async () => {
    const { user, asked } = shown({
      'POST tray': drafted({ kind: 'add ad group', campaign: 'a', name: 'b' }),
    });
    await user.click(await screen.findByRole('button', { name: 'Make ad groups…' }));
    const dialog = await screen.findByRole('dialog');
    await user.click(within(dialog).getByRole('button', { name: 'Put in the tray' }));
    expect(await within(dialog).findByText('Give the daily budget as an amount above 0.')).toBeDefined();
    await user.type(within(dialog).getByLabelText('Daily budget'), '12.50');
    await user.click(within(dialog).getByRole('checkbox', { name: 'phrase' }));
    await user.click(within(dialog).getByRole('button', { name: 'Put in the tray' }));
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    const { changes } = asked('POST tray')[0]!.body as { changes: { change: Change }[] };
    expect(changes.map(({ change }) => change)).toEqual([
      { kind: 'add campaign', name: 'Spring hives', budgetMicros: 12_500_000 },
      { kind: 'add ad group', campaign: 'Spring hives', name: 'Suits' },
      {
        ...{ kind: 'add keyword', campaign: 'Spring hives', adGroup: 'Suits' },
        ...{ text: 'bee suit', match: 'exact', bidMicros: 500_000 },
      },
    ]);
  });
});
