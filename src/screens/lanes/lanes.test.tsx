import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { Leak, LanePlan, LanesView, ShownLanes, TierView } from '@/contracts/lanes';
import type { DraftOutcome } from '@/contracts/tray';
import { show, type Answers } from '../testing/screen';
import { LanesScreen } from './lanes-screen';

const plan: LanePlan = {
  name: 'Shopping',
  tiers: [
    { name: 'All queries', campaigns: ['1'], entryTerms: [] },
    { name: 'Maker names', campaigns: ['2'], entryTerms: ['Pellwright!'] },
    { name: 'Series', campaigns: ['3'], entryTerms: ['series two'] },
  ],
};
const brought = (clicks: number) => ({ clicks, costMicros: clicks * 500_000, conversions: clicks / 50 });
const aTier = (name: string, over: Partial<TierView> = {}): TierView => ({
  ...{ name, places: [`Shopping · ${name}`], campaigns: ['1'], priorities: ['high'], bidMicros: null },
  ...{ entryTerms: 1, needs: 2, missing: 0, isPaused: false, dryDays: [] },
  ...{ really: brought(100), byPlan: brought(50), leaksMicros: 31_000_000 },
  ...over,
});
const stop = (text: string, id: string) =>
  ({ kind: 'add negative', text, match: 'phrase', place: { kind: 'campaign', id } }) as const;
const aLeak = (query: string, over: Partial<Leak> = {}): Leak => ({
  ...{ query, own: 1, served: 0, ...brought(20), cause: 'negative missing' },
  because: '“pellwright” is no negative in All queries',
  ...{ mends: [stop('pellwright', '1')], entryTerm: null, noMend: null },
  ...over,
});
const leaks = [
  aLeak('pellwright smoker', { costMicros: 30_000_000 }),
  aLeak('oast veil', {
    ...{ own: 0, served: 2, cause: 'entry term missing', mends: [], entryTerm: { text: 'oast', tier: 2 } },
    because: '“oast” stops it in every tier before Series, and is no entry term there',
  }),
  aLeak('elmcote tap', {
    ...{ served: 2, cause: 'ran dry', mends: [], costMicros: 1_000_000 },
    ...{ because: 'Maker names spent its budget on 3 days', noMend: 'Let all tiers pay out of one budget.' },
  }),
];
const shown = (over: Partial<ShownLanes> = {}): ShownLanes => ({
  ...{ key: 'plan 1', name: 'Shopping', by: 'entry terms', plan, days: 30, budget: null, faults: [] },
  tiers: [
    aTier('All queries'),
    aTier('Maker names', { dryDays: ['2026-11-03', '2026-11-09'] }),
    aTier('Series', { isPaused: true, missing: 1 }),
  ],
  leaks: { count: 3, costMicros: 41_000_000, first: leaks },
  entryTerms: [
    {
      ...{ text: 'pellwright', tier: 1, ...brought(40), missingIn: ['All queries'], fault: null },
      variants: ['pellwrights'],
    },
    {
      ...{ text: 'series two', tier: 2, ...brought(4), missingIn: [], variants: [] },
      fault: 'It is a product code, which no negative stops.',
    },
  ],
  ...{ missing: [stop('pellwright', '1')], sharing: [], ordering: [] },
  ...over,
});
const aView = (over: Partial<LanesView> = {}): LanesView => ({
  plans: [
    { key: 'plan 1', name: 'Shopping', by: 'entry terms' },
    { key: 'seats group Hives', name: 'Hives', by: 'match type' },
  ],
  campaigns: ['All queries', 'Maker names', 'Series'].map((name, i) => ({
    ...{ id: String(i + 1), name: `Shopping · ${name}`, priority: ['high', 'medium', 'low'][i]! },
  })),
  shown: shown(),
  ...over,
});
const drafted: DraftOutcome = {
  outcome: 'drafted',
  changeId: 5,
  said: 'Stop “pellwright” (phrase)',
  heed: null,
  change: stop('pellwright', '1'),
};

function showLanes(search = '', answers: Answers = {}) {
  return show(<LanesScreen />, {
    search,
    answers: {
      'GET lanes': aView(),
      'PUT lanes': { said: 'Changed the lane plan Shopping', key: 'plan 1' },
      'GET lanes/where': { byPlan: 1, entryTerm: 'pellwright', asItIs: 0 },
      'POST tray': { outcomes: [drafted] },
      ...answers,
    },
  });
}
const inHand = () => screen.getByRole('region', { name: 'In hand' });
const grid = (name: string) => screen.findByRole('grid', { name });

describe('leaks', () => {
  test('stand with their cause; the mend of the one in hand goes into the tray, whatever it pays', async () => {
    const { user, asked } = showLanes();
    const table = await grid('Leaks');
    expect(within(table).getAllByRole('row')).toHaveLength(4);
    await waitFor(() => expect(inHand().textContent).toContain('pellwright smoker'));
    expect(inHand().textContent).toContain('All queries served it; by the plan it is for Maker names');
    // Twenty clicks at what a click costs in Maker names by the plan.
    expect(within(inHand()).getByRole('row', { name: /Maker names/ }).textContent).toContain('+10.00');
    table.focus();
    await user.keyboard('{Enter}');
    await waitFor(() =>
      expect(asked('POST tray')[0]!.body).toMatchObject({
        changes: [{ change: stop('pellwright', '1'), why: 'lane plan Shopping' }],
      }),
    );
    expect(JSON.stringify(asked('POST tray')[0]!.body)).toContain('its queries have a tier of their own');
  });

  test('that lack an entry term are mended in the plan, with its undo', async () => {
    const { user, asked } = showLanes();
    (await grid('Leaks')).focus();
    await user.keyboard('{ArrowDown}');
    await user.click(await within(inHand()).findByRole('button', { name: /Let it into Series/ }));
    const mended = {
      ...plan,
      tiers: plan.tiers.with(2, { ...plan.tiers[2]!, entryTerms: ['series two', 'oast'] }),
    };
    await waitFor(() => expect(asked('PUT lanes')[0]!.body).toEqual({ was: plan, plan: mended }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('PUT lanes')[1]!.body).toEqual({ was: mended, plan }));
  });

  test('that nothing here mends say what would', async () => {
    const { user } = showLanes();
    (await grid('Leaks')).focus();
    await user.keyboard('{End}');
    await waitFor(() => expect(inHand().textContent).toContain('Let all tiers pay out of one budget'));
    expect(within(inHand()).queryByRole('button', { name: /mend/ })).toBeNull();
  });
});

describe('entry terms', () => {
  test('say where they are missing; a digit moves one to another tier, and a variant joins it', async () => {
    const { user, asked } = showLanes('?shown=terms');
    const table = await grid('Entry terms');
    await waitFor(() => expect(inHand().textContent).toContain('No negative keeps it out of All queries'));
    table.focus();
    await user.keyboard('3');
    await waitFor(() =>
      expect(asked('PUT lanes')[0]!.body).toMatchObject({
        plan: { tiers: [{}, { entryTerms: [] }, { entryTerms: ['series two', 'pellwright'] }] },
      }),
    );
    await user.click(within(inHand()).getByRole('button', { name: 'Add “pellwrights”' }));
    await waitFor(() =>
      expect(asked('PUT lanes')[1]!.body).toMatchObject({
        plan: { tiers: [{}, { entryTerms: ['Pellwright!', 'pellwrights'] }, {}] },
      }),
    );
    expect(table.textContent).toContain('It is a product code');
  });

  test('of seats are keywords, which Promote gives', async () => {
    showLanes('?shown=terms', { 'GET lanes': aView({ shown: shown({ by: 'match type', plan: null }) }) });
    await grid('Entry terms');
    await waitFor(() => expect(inHand().textContent).toContain('Promote gives seats their keywords'));
    expect(screen.queryByRole('button', { name: 'Change' })).toBeNull();
  });
});

test('tiers stand as they served beside what they would by the plan, dry days and all', async () => {
  const { user } = showLanes('?shown=tiers');
  const table = await grid('Tiers by this plan');
  expect(within(table).getByRole('row', { name: /Maker names/ }).textContent).toContain('dry on 2 days');
  expect(within(table).getByRole('row', { name: /Series/ }).textContent).toContain('does not run');
  table.focus();
  await user.keyboard('{End}');
  await waitFor(() => expect(inHand().textContent).toContain('1 of them is missing'));
});

test('any query is told where it would go, by the plan and as things are', async () => {
  const { user, asked } = showLanes();
  await user.type(await screen.findByRole('textbox', { name: 'Where would it go?' }), 'pellwright 40');
  expect(await screen.findByText(/as things are to All queries/)).toBeDefined();
  expect(asked('GET lanes/where').at(-1)!.query).toMatchObject({ plan: 'plan 1', query: 'pellwright 40' });
});

test('all that is missing, one budget and the order go into the tray, each at a press', async () => {
  const share = {
    kind: 'share budget',
    campaignId: '2',
    budget: 'Shopping',
    budgetMicros: 9e7,
    ownMicros: 3e7,
  } as const;
  const order = { kind: 'set priority', campaignId: '2', priority: 'medium', was: 'low' } as const;
  const faults = ['Its tiers do not pay out of one budget.'];
  const { user, asked } = showLanes('', {
    'GET lanes': aView({ shown: shown({ faults, sharing: [share], ordering: [order] }) }),
  });
  expect(await screen.findByText(faults[0]!)).toBeDefined();
  for (const name of [
    'Put all that are missing in the tray',
    'Let all tiers pay out of one budget',
    'Ask them in this order',
  ]) {
    const button = screen.getByRole('button', { name });
    await waitFor(() => expect(button).toHaveProperty('disabled', false));
    await user.click(button);
  }
  await waitFor(() => expect(asked('POST tray')).toHaveLength(3));
  expect(
    asked('POST tray').map(({ body }) => (body as { changes: { change: object }[] }).changes[0]!.change),
  ).toEqual([stop('pellwright', '1'), share, order]);
});

describe('a plan', () => {
  test('begins with a tier for each priority, and is refused until it is whole', async () => {
    const { user, asked } = showLanes();
    await user.click(await screen.findByRole('button', { name: 'New plan' }));
    const dialog = await screen.findByRole('dialog', { name: 'New lane plan' });
    expect(within(dialog).getByRole('textbox', { name: 'Tier 1' })).toHaveProperty(
      'value',
      'Shopping · All queries',
    );
    await user.clear(within(dialog).getByRole('textbox', { name: 'Name of the plan' }));
    await user.click(within(dialog).getByRole('button', { name: 'Keep the plan' }));
    expect(within(dialog).getByRole('alert').textContent).toBe('A lane plan needs a name.');
    await user.type(within(dialog).getByRole('textbox', { name: 'Name of the plan' }), 'Tools');
    await user.type(
      within(dialog).getByRole('textbox', { name: /Entry terms of tier 2/ }),
      'pellwright{Enter}{Enter} oast ',
    );
    await user.click(within(dialog).getByRole('button', { name: 'Take out Shopping · Series' }));
    await user.click(within(dialog).getAllByRole('button', { name: 'Leave this tier out' })[1]!);
    await user.click(within(dialog).getByRole('button', { name: 'Keep the plan' }));
    await waitFor(() =>
      expect(asked('PUT lanes')[0]!.body).toEqual({
        was: null,
        plan: {
          name: 'Tools',
          tiers: [
            { name: 'Shopping · All queries', campaigns: ['1'], entryTerms: [] },
            { name: 'Shopping · Maker names', campaigns: ['2'], entryTerms: ['pellwright', 'oast'] },
          ],
        },
      }),
    );
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  test('is removed with its undo; without any, it is said what lanes are', async () => {
    const { user, asked } = showLanes('', {
      'PUT lanes': { said: 'Removed the lane plan Shopping', key: null },
    });
    await user.click(await screen.findByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(asked('PUT lanes')[0]!.body).toEqual({ was: plan, plan: null }));
    showLanes('', { 'GET lanes': aView({ plans: [], shown: null }) });
    expect(await screen.findByText(/No campaigns are in tiers yet/)).toBeDefined();
  });
});
