import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { useRouter } from 'next/navigation';
import type { Finding } from '@/contracts/findings';
import type { Answers } from '../testing/screen';
import { aFinding, aRule, aRuleLine, bodyOf, inHand, showRules } from './testing';

async function grid(name: string, row: RegExp) {
  const table = await screen.findByRole('grid', { name });
  await within(table).findByRole('row', { name: row });
  return table;
}

const withFindings = (lines: Finding[]): Answers => ({
  'GET rules/findings': { counts: { open: lines.length, later: 0, refused: 0 }, lines },
});

describe('findings', () => {
  test('Enter says yes: the stop goes to the tray, with what the rule saw', async () => {
    const { user, asked } = showRules();
    (await grid('Findings', /bee movie/)).focus();
    expect(inHand().textContent).toContain('16 clicks, 9.00, no conversion in 20 Oct – 18 Nov');
    await user.keyboard('{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    const [put] = bodyOf(asked('POST tray')).changes;
    expect(put!.change).toMatchObject({ kind: 'add negative', text: 'bee movie', match: 'exact' });
    expect(put!.why).toBe('the rule “15 clicks”: 16 clicks, 9.00, no conversion in 20 Oct – 18 Nov');
  });

  test('all that are marked go in one go', async () => {
    const { user, asked } = showRules();
    (await grid('Findings', /bee movie/)).focus();
    await user.keyboard(' {ArrowDown} {Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect(bodyOf(asked('POST tray')).changes).toHaveLength(2);
  });

  test('a no asks for its reason, and can be taken back', async () => {
    const { user, asked } = showRules();
    (await grid('Findings', /bee movie/)).focus();
    await user.keyboard('x{Enter}');
    expect(await screen.findByText('Give a reason: the rule keeps it.')).toBeDefined();
    expect(asked('PUT rules/findings')).toHaveLength(0);
    await user.keyboard('we sell it{Enter}');
    await waitFor(() =>
      expect(asked('PUT rules/findings')[0]!.body).toEqual({ ids: [1], is: 'refused', why: 'we sell it' }),
    );
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('PUT rules/findings')[1]!.body).toMatchObject({ ids: [1], is: 'open' }));
  });

  test('a yes to what a rule would keep is a verdict at once, and can be taken back', async () => {
    const kept = aFinding(4, 'bee hive kit', {
      does: 'keep',
      verdict: { is: 'kept' },
      changes: [],
      place: 'kept open',
    });
    const { user, asked } = showRules('', withFindings([kept]));
    (await grid('Findings', /bee hive kit/)).focus();
    expect(inHand().textContent).toContain('It would be kept open.');
    expect(within(inHand()).getByRole('button', { name: /Yes, keep it/ })).toBeDefined();
    await user.keyboard('{Enter}');
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    expect(asked('PUT rules/findings/verdicts').map(({ body }) => body)).toEqual([
      { ids: [4], is: 'given' },
      { ids: [4], is: 'taken back' },
    ]);
    expect(asked('POST tray')).toHaveLength(0);
  });

  test('a yes to a keyword puts its bid in the tray', async () => {
    const change = { kind: 'set bid', keywordId: '7', bidMicros: 400_000, wasMicros: 900_000 } as const;
    const keyword = aFinding(4, '“bee hive” (broad)', {
      ...{ about: 'keywords', does: 'set bid', changes: [change], place: 'bid 0.40 EUR, was 0.90 EUR' },
    });
    const { user, asked } = showRules('', withFindings([keyword]));
    (await grid('Findings', /bee hive/)).focus();
    expect(inHand().textContent).toContain('It would be bid 0.40 EUR, was 0.90 EUR.');
    expect(within(inHand()).queryByRole('link', { name: 'Look at it in Sift' })).toBeNull();
    await user.keyboard('{Enter}');
    await waitFor(() => expect(bodyOf(asked('POST tray')).changes).toMatchObject([{ change }]));
    expect(bodyOf(asked('POST tray')).changes[0]).not.toHaveProperty('from');
  });

  test('a yes to a term that is promoted puts its keyword in the tray, and says so', async () => {
    const change = { kind: 'add keyword', text: 'bee hive kit', match: 'exact', bidMicros: 400_000 } as const;
    const term = aFinding(4, 'bee hive kit', {
      ...{ does: 'promote', place: 'exact in Starter' },
      changes: [{ ...change, campaign: 'Hives', adGroup: 'Starter' }],
    });
    const { user, asked } = showRules('', withFindings([term]));
    (await grid('Findings', /bee hive kit/)).focus();
    expect(inHand().textContent).toContain('Promoted to: exact in Starter.');
    expect(within(inHand()).getByRole('button', { name: /^Yes, promote it/ })).toBeDefined();
    await user.keyboard('{Enter}');
    await waitFor(() => expect(bodyOf(asked('POST tray')).changes).toMatchObject([{ change }]));
    expect(bodyOf(asked('POST tray')).changes[0]).not.toHaveProperty('from');
  });

  test('two rules that differ are told; of many marked, such a term is left', async () => {
    const differ = aFinding(4, 'bee hive kit', { against: ['Pays well'] });
    const { user, asked } = showRules('', withFindings([aFinding(1, 'bee movie'), differ]));
    const table = await grid('Findings', /bee movie/);
    table.focus();
    await user.keyboard('{ArrowDown}');
    expect(within(table).getByRole('row', { name: /bee hive kit/ }).textContent).toContain(
      'two rules differ',
    );
    expect(inHand().textContent).toContain('“Pays well” found it, too, and wants the opposite');
    await user.keyboard(' {ArrowUp} {Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect(bodyOf(asked('POST tray')).changes).toMatchObject([{ change: { text: 'bee movie' } }]);
    expect(await screen.findByText('1 finding left on which rules differ.')).toBeDefined();
  });

  test('l looks at it in a week; what was refused is opened again', async () => {
    const { user, asked } = showRules();
    (await grid('Findings', /bee movie/)).focus();
    await user.keyboard('l');
    await waitFor(() =>
      expect(asked('PUT rules/findings')[0]!.body).toMatchObject({ ids: [1], is: 'later' }),
    );
    await user.click(screen.getByRole('radio', { name: /refused/ }));
    (await grid('Findings', /bee hive kit/)).focus();
    expect(inHand().textContent).toContain('Refused by Tobias Finch');
    await user.keyboard('o');
    await waitFor(() => expect(asked('PUT rules/findings')[1]!.body).toMatchObject({ ids: [3], is: 'open' }));
  });
});

describe('rules', () => {
  test('stand with what they say and found; o switches, Enter opens', async () => {
    const { user, asked } = showRules('?shown=rules');
    const table = await grid('Rules', /15 clicks/);
    table.focus();
    expect(inHand().textContent).toContain(
      '15 clicks or more, no conversion in 30 days that end 2 days ago, everywhere: stop it in its ad groups, after each report.',
    );
    expect(within(table).getByRole('row', { name: /Surely misses/ }).textContent).toContain('waits');
    await user.keyboard('o');
    await waitFor(() => expect(bodyOf(asked('PUT rules/states')).rules).toEqual([{ id: 1, state: 'off' }]));
    table.focus();
    await user.keyboard('{Enter}');
    expect(await screen.findByRole('group', { name: 'The rule' })).toBeDefined();
  });

  test('all are switched off with one press, and on again by the undo', async () => {
    const { user, asked } = showRules();
    const off = await screen.findByRole('button', { name: 'All rules off' });
    await waitFor(() => expect(off).toHaveProperty('disabled', false));
    await user.click(off);
    await waitFor(() => expect(bodyOf(asked('PUT rules/states')).rules).toEqual([{ id: 1, state: 'off' }]));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(bodyOf(asked('PUT rules/states')).rules).toEqual([{ id: 1, state: 'on' }]));
  });
});

test('a rule is kept as a ready one, with the reason for its numbers; one of one’s own is removed', async () => {
  const { user, asked } = showRules('?shown=rules&begin=12');
  const name = await screen.findByRole<HTMLInputElement>('textbox', { name: 'Name' });
  expect(name.value).toBe('Surely misses');
  await user.type(screen.getByRole('textbox', { name: 'Why these numbers' }), 'they served us well');
  await user.click(screen.getByRole('button', { name: 'Keep as a ready one' }));
  await waitFor(() =>
    expect(asked('POST rules')[0]!.body).toMatchObject({
      ...{ name: 'Surely misses', state: 'ready', why: 'they served us well' },
    }),
  );
  await user.click(screen.getByRole('tab', { name: /Ready ones/ }));
  (await grid('Ready rules', /Enough clicks/)).focus();
  await user.keyboard('{Delete}');
  expect(asked('PUT rules/states')).toHaveLength(0); // ours stay
  await user.keyboard('{ArrowDown}{Delete}');
  await waitFor(() =>
    expect(bodyOf(asked('PUT rules/states')).rules).toEqual([{ id: 12, state: 'removed' }]),
  );
});

test('what rules did stands with what it promised and saved, and leads to the Ledger', async () => {
  const { user } = showRules('?shown=did');
  const table = await grid('What rules did', /bee movie/);
  table.focus();
  expect(inHand().textContent).toContain(
    'The rule “15 clicks” (version 2) acted on 20 Nov by 2 changes: in force.',
  );
  expect(inHand().textContent).toContain('It saved 7.50 in 9 days; 8.00 was promised.');
  expect(inHand().textContent).toContain('Since it was switched on, the rule acted 2 times and saved 7.50');
  expect(within(inHand()).getByRole('link').getAttribute('href')).toBe('/web/ledger?entry=31');
  await user.keyboard('{Enter}');
  expect(useRouter().push).toHaveBeenLastCalledWith('/web/ledger?entry=31');
  await user.keyboard('{ArrowDown}');
  expect(inHand().textContent!.split('No day with data has come since.')).toHaveLength(2);
  expect(within(inHand()).queryByRole('link')).toBeNull();
});

test('a rule says why it did nothing, or stopped itself', async () => {
  const bounds = { changesADay: 5, costADayMicros: 12_500_000, leastKept: 0.7 };
  const rule = aRule({ how: { is: 'by itself', bounds } });
  const trouble = 'It promised 10.00 EUR in 9 days, and 2.00 EUR came.';
  showRules('?shown=rules', {
    'GET rules': {
      ...{ ready: [], campaigns: [], lists: [], labels: [], productGroups: [], sets: [] },
      rules: [
        aRuleLine({ id: 1, name: 'One', rule, open: 3 }),
        aRuleLine({ id: 2, name: 'Two', rule, trouble: 'Nothing was sent.' }),
        aRuleLine({ id: 3, name: 'Three', rule, state: 'off', trouble, open: 9 }),
      ],
    },
  });
  const table = await grid('Rules', /One/);
  const stateOf = (name: RegExp) => within(table).getByRole('row', { name }).textContent;
  expect(stateOf(/One/)).toContain('by itself');
  expect(stateOf(/Two/)).toContain('waits');
  expect(stateOf(/Three/)).toContain('stopped itself');
  expect(inHand().textContent).toContain(trouble);
  expect(inHand().textContent).toContain('by itself: 5 changes and 12.50 a day at most');
});

test('a ready rule begins a sentence, with the reason for its numbers', async () => {
  const { user } = showRules('?shown=ready', {
    'GET rules': {
      ...{ rules: [aRuleLine()], campaigns: [], lists: [], labels: [], productGroups: [], sets: [] },
      ready: [
        {
          name: 'Enough clicks',
          rule: aRuleLine().rule,
          reason: 'One click in forty converts.',
          ruleId: null,
        },
      ],
    },
  });
  (await grid('Ready rules', /Enough clicks/)).focus();
  expect(inHand().textContent).toContain('One click in forty converts.');
  await user.keyboard('{Enter}');
  expect(await screen.findByRole('group', { name: 'The rule' })).toBeDefined();
  expect((screen.getByRole('textbox', { name: 'Name' }) as HTMLInputElement).value).toBe('Enough clicks');
});
