import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { RuleSet } from '@/contracts/rules';
import { aRuleLine, aView, inHand, showRules } from '../testing';

const sets: RuleSet[] = [
  { name: 'Spring', where: null, rules: [1, 2] },
  { name: 'Winter', where: { is: 'in', campaigns: ['2'] }, rules: [3] },
];
const rules = [
  aRuleLine({ id: 1, name: '15 clicks', set: 'Spring' }),
  aRuleLine({ id: 2, name: 'Surely misses', state: 'off', set: 'Spring' }),
  aRuleLine({ id: 3, name: 'Pays well', state: 'off', set: 'Winter' }),
  aRuleLine({ id: 4, name: 'Alone' }),
];
async function showSets(role: 'own' | 'look' = 'own') {
  const shown = showRules('?shown=sets', { 'GET rules': aView({ sets, rules }) }, { role });
  const table = await screen.findByRole('grid', { name: 'Sets of rules' });
  await within(table).findByRole('row', { name: /Spring/ });
  return {
    ...{ table, ...shown },
    kept: () => shown.asked('PUT rules/sets').map(({ body }) => (body as { sets: RuleSet[] }).sets),
  };
}

describe('sets of rules', () => {
  test('say where they look and which rules they have in which order', async () => {
    const { table } = await showSets();
    const row = (name: RegExp) => within(table).getByRole('row', { name }).textContent;
    expect(row(/Spring/)).toContain('15 clicks and Surely misses');
    expect(row(/Spring/)).toContain('1 of 2');
    expect(row(/Winter/)).toContain('in Courses');
  });

  test('get another order, lose a rule and get one, which leaves the set where it was', async () => {
    const { user, kept } = await showSets();
    const order = () => within(inHand()).getByRole('list', { name: 'Rules in their order' });
    expect(order().textContent).toBe('115 clicks2Surely misses');
    expect(
      within(inHand()).getByRole<HTMLButtonElement>('button', { name: 'Before: 15 clicks' }).disabled,
    ).toBe(true);
    await user.click(within(inHand()).getByRole('button', { name: 'After: 15 clicks' }));
    await waitFor(() => expect(kept()[0]).toEqual([{ ...sets[0], rules: [2, 1] }, sets[1]]));
    await user.click(within(inHand()).getByRole('button', { name: 'Take out: 15 clicks' }));
    await waitFor(() => expect(kept()[1]![0]!.rules).toEqual([2]));
    await user.click(within(inHand()).getByRole('button', { name: 'Add a rule' }));
    await user.click(await screen.findByRole('option', { name: 'Pays well (from Winter)' }));
    await waitFor(() =>
      expect(kept()[2]).toEqual([
        { ...sets[0], rules: [1, 2, 3] },
        { ...sets[1], rules: [] },
      ]),
    );
  });

  test('are made under a name of their own, called otherwise, and removed; the undo puts all back', async () => {
    const { user, kept, table } = await showSets();
    await user.click(screen.getByRole('button', { name: 'New set' }));
    await waitFor(() => expect(kept()[0]).toEqual([...sets, { name: 'Set 3', where: null, rules: [] }]));
    table.focus();
    await user.keyboard('{Enter}');
    const field = within(inHand()).getByRole('textbox', { name: /^Name/ });
    expect(document.activeElement).toBe(field);
    await user.clear(field);
    await user.type(field, 'Winter{Enter}');
    expect(await screen.findByText('Another set is called so.')).toBeDefined();
    await user.clear(field);
    await user.type(field, 'Summer{Enter}');
    await waitFor(() => expect(kept()[1]![0]).toEqual({ ...sets[0], name: 'Summer' }));
    table.focus();
    await user.keyboard('{Delete}');
    await waitFor(() => expect(kept()[2]).toEqual([sets[1]]));
    await user.click(screen.getAllByRole('button', { name: 'Undo' }).at(0)!);
    await waitFor(() => expect(kept()[3]).toEqual(sets));
  });

  test('come in hand when they are made, with the focus on the name, and stay there under another name', async () => {
    let now = sets;
    const { user } = showRules('?shown=sets', {
      'GET rules': () => aView({ sets: now, rules }),
      'PUT rules/sets': ({ body }) => {
        now = (body as { sets: RuleSet[] }).sets.toSorted((a, b) => (a.name < b.name ? -1 : 1));
        return { said: 'Sets of rules' };
      },
    });
    await screen.findByRole('row', { name: /Spring/ });
    await user.click(screen.getByRole('button', { name: 'New set' }));
    const field = () => within(inHand()).getByRole<HTMLInputElement>('textbox', { name: /^Name/ });
    await waitFor(() => expect(field().value).toBe('Set 3'));
    await waitFor(() => expect(document.activeElement).toBe(field()));
    await user.clear(field());
    await user.type(field(), 'Zander{Enter}');
    await waitFor(() => expect(within(inHand()).getByText('Zander')).toBeDefined());
    const selected = () => screen.getByRole('row', { selected: true }).textContent;
    expect(selected()).toContain('Zander');
    screen.getByRole('grid', { name: 'Sets of rules' }).focus();
    await user.keyboard('{ArrowUp}');
    await waitFor(() => expect(selected()).toContain('Winter'));
    expect(document.activeElement).toBe(screen.getByRole('grid', { name: 'Sets of rules' }));
  });

  test('look in some campaigns at most, once one is named', async () => {
    const { user, kept } = await showSets();
    await user.click(within(inHand()).getByRole('combobox', { name: 'Where' }));
    await user.click(await screen.findByRole('option', { name: 'in these campaigns' }));
    expect(kept()).toEqual([]);
    await user.click(within(inHand()).getByRole('button', { name: 'Choose a campaign' }));
    await user.click(await screen.findByRole('option', { name: 'Courses' }));
    await waitFor(() => expect(kept()[0]![0]!.where).toEqual({ is: 'in', campaigns: ['2'] }));
  });

  test('are swapped with one press: the rules of one go off, those of the other on', async () => {
    const { user, asked } = await showSets();
    await user.click(within(inHand()).getByRole('button', { name: 'Swap it for another set' }));
    await user.click(await screen.findByRole('option', { name: 'Winter' }));
    await waitFor(() =>
      expect(asked('PUT rules/states')[0]!.body).toEqual({
        rules: [
          { id: 1, state: 'off' },
          { id: 3, state: 'on' },
        ],
      }),
    );
  });

  test('stand still for who may only look', async () => {
    const { user, kept, table } = await showSets('look');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'New set' }).disabled).toBe(true);
    table.focus();
    await user.keyboard('{Delete}');
    expect(screen.queryByRole('button', { name: 'Add a rule' })).toBeNull();
    expect(kept()).toEqual([]);
  });
});

test('a file brings rules in sets; the undo takes both back', async () => {
  const { user, asked } = showRules('?shown=rules', {
    'GET rules': aView({ sets, rules }),
    'POST rules/file': { said: '1 rule brought from a file, as a draft', ruleIds: [9], setsBefore: sets },
  });
  const file = new File(['{"holds":"rules of Gate Post"}'], 'rules.json', { type: 'application/json' });
  await user.upload(await screen.findByLabelText('A file of rules'), file);
  await user.click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(asked('PUT rules/states')).toHaveLength(1));
  expect(asked('PUT rules/sets').map(({ body }) => body)).toEqual([{ sets }]);
  expect(asked('PUT rules/states').map(({ body }) => body)).toEqual([
    { rules: [{ id: 9, state: 'removed' }] },
  ]);
});
