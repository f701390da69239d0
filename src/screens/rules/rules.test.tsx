import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { Rule } from '@/core';
import { useRouter } from 'next/navigation';
import { aRule, aRuleLine, showRules } from './testing';

const inHand = () => screen.getByRole('region', { name: 'In hand' });
async function grid(name: string, row: RegExp) {
  const table = await screen.findByRole('grid', { name });
  await within(table).findByRole('row', { name: row });
  return table;
}
type Body = { rule: Rule; rules: object[]; changes: { change: object; why: string }[] };
const bodyOf = (asked: { body?: unknown }[], i = -1) => asked.at(i)!.body as Body;

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

const choosing =
  (user: ReturnType<typeof showRules>['user']) =>
  async (name: string, option: RegExp): Promise<void> => {
    await user.click(screen.getByRole('combobox', { name }));
    await user.click(await screen.findByRole('option', { name: option }));
  };

describe('a sentence', () => {
  const figure = (name: string) => screen.getByRole('textbox', { name });
  test('is tried whenever a part of it is another, and takes the threshold of a neighbour', async () => {
    const { user, asked } = showRules('?shown=rules&begin=');
    const table = await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    expect(
      within(table)
        .getAllByRole('rowheader')
        .map((one) => one.textContent),
    ).toEqual(['10 clicks or more', '15 clicks or more', '20 clicks or more']);
    await user.clear(figure('How many clicks'));
    await user.type(figure('How many clicks'), '40{Enter}');
    await waitFor(() =>
      expect(bodyOf(asked('POST rules/trial')).rule.when[0]).toMatchObject({ of: 'clicks', value: 40 }),
    );
    await user.click(await screen.findByRole('button', { name: '35 clicks or more' }));
    await waitFor(() => expect(bodyOf(asked('POST rules/trial')).rule.when[0]).toMatchObject({ value: 35 }));
    expect(inHand().textContent).toContain('Would have stopped 83 terms in 3 days and saved 884.70');
    expect(inHand().textContent).toContain('stopped on 14 Nov after 16 clicks; 1 conversion since');
  });

  test('says what is added, left out, and where', async () => {
    const { user, asked } = showRules('?shown=rules&begin=');
    await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    const choose = choosing(user);
    await choose('Add a condition', /words that it holds/);
    await user.clear(figure('Words and runs, parted by commas'));
    await user.type(figure('Words and runs, parted by commas'), 'free, free, jobs{Enter}');
    await user.click(screen.getByRole('button', { name: 'Take out: conversions' }));
    await choose('Where', /in these campaigns/);
    await user.click(screen.getByRole('button', { name: 'Choose a campaign' }));
    await user.click(await screen.findByRole('option', { name: 'Courses' }));
    await choose('What is proposed', /list Work/);
    await choose('How often it looks', /weekly/);
    await waitFor(() =>
      expect(bodyOf(asked('POST rules/trial')).rule).toEqual({
        when: [
          { of: 'clicks', is: 'at least', value: 15 },
          { of: 'words', is: 'any of', words: ['free', 'jobs'] },
        ],
        ...{ lookBack: { days: 30, lagDays: 2 }, where: { is: 'in', campaigns: ['2'] } },
        ...{ then: { do: 'stop in list', list: '5' }, how: { is: 'by approval' }, often: 'weekly' },
      }),
    );
  });

  test('says that the rule acts by itself, and within what', async () => {
    const { user, asked } = showRules('?shown=rules&begin=');
    await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    const choose = choosing(user);
    await choose('After a yes or by itself', /by itself/);
    await user.clear(figure('Changes a day at most'));
    await user.type(figure('Changes a day at most'), '5{Enter}');
    await user.clear(figure('Cost of what it stops a day at most, in EUR'));
    await user.type(figure('Cost of what it stops a day at most, in EUR'), '12.50{Enter}');
    await user.clear(figure('Least share of its promise that must come, in per cent'));
    await user.type(figure('Least share of its promise that must come, in per cent'), '70{Enter}');
    await user.type(screen.getByRole('textbox', { name: /^Name/ }), 'Alone');
    // What it would have found is the same, so that it is tried once; a neighbour's threshold leaves the bounds.
    expect(asked('POST rules/trial')).toHaveLength(1);
    await user.click(screen.getByRole('button', { name: '20 clicks or more' }));
    await user.click(screen.getByRole('button', { name: 'Switch it on' }));
    await waitFor(() =>
      expect(bodyOf(asked('POST rules'), 0).rule.how).toEqual({
        ...{ is: 'by itself' },
        bounds: { changesADay: 5, costADayMicros: 12_500_000, leastKept: 0.7 },
      }),
    );
  });

  test('that only tells does nothing by itself', async () => {
    const { user, asked } = showRules('?shown=rules&begin=');
    const choose = choosing(user);
    await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    await choose('After a yes or by itself', /by itself/);
    await choose('What is proposed', /only tell/);
    await waitFor(() =>
      expect(bodyOf(asked('POST rules/trial')).rule).toMatchObject({
        ...{ then: { do: 'tell' }, how: { is: 'by approval' } },
      }),
    );
    expect(screen.queryByRole('combobox', { name: 'After a yes or by itself' })).toBeNull();
  });

  test('that acts by itself is switched on by who may send alone', async () => {
    const bounds = { changesADay: 5, costADayMicros: 12_500_000, leastKept: 0.7 };
    const off = aRuleLine({ state: 'off', rule: aRule({ how: { is: 'by itself', bounds } }) });
    showRules(
      '?shown=rules&rule=1',
      { 'GET rules': { rules: [off], ready: [], campaigns: [], lists: [] } },
      { role: 'prepare' },
    );
    const on = await screen.findByRole('button', { name: 'Switch it on' });
    expect(on).toHaveProperty('disabled', true);
    expect(await screen.findByText(/^Only who may send lets a rule act by itself/)).toBeDefined();
  });

  test('that acts by itself says where nothing does', async () => {
    const bounds = { changesADay: 5, costADayMicros: 12_500_000, leastKept: 0.7 };
    const off = aRuleLine({ state: 'off', rule: aRule({ how: { is: 'by itself', bounds } }) });
    showRules(
      '?shown=rules&rule=1',
      { 'GET rules': { rules: [off], ready: [], campaigns: [], lists: [] } },
      { summary: { isConnected: false } },
    );
    expect(await screen.findByText(/^In this account nothing acts by itself/)).toBeDefined();
  });

  test('is kept under a name, switched on or as a draft', async () => {
    const { user, asked } = showRules('?shown=rules&begin=');
    await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    await user.click(screen.getByRole('button', { name: 'Switch it on' }));
    expect(await screen.findByText('A rule needs a name.')).toBeDefined();
    await user.type(screen.getByRole('textbox', { name: /^Name/ }), 'Fifteen');
    await user.click(screen.getByRole('button', { name: 'Keep as a draft' }));
    await waitFor(() =>
      expect(asked('POST rules')[0]!.body).toMatchObject({ name: 'Fifteen', state: 'draft' }),
    );
  });

  test('that stands becomes its next version, with who and why', async () => {
    const { user, asked } = showRules('?shown=rules&rule=1');
    await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    expect(screen.queryByRole('button', { name: /Keep as version/ })).toBeNull();
    await user.clear(figure('Days that it looks at'));
    await user.type(figure('Days that it looks at'), '60{Enter}');
    await user.type(figure('Why it is changed'), 'more data');
    await user.click(screen.getByRole('button', { name: 'Keep as version 2' }));
    await waitFor(() =>
      expect(asked('PUT rules/[rule]')[0]!.body).toMatchObject({
        ...{ version: 1, why: 'more data', rule: { lookBack: { days: 60, lagDays: 2 } } },
      }),
    );
    await user.click(screen.getByText('Version 1, by Maren Oakes'));
    expect(await screen.findByText(/too many/)).toBeDefined();
  });

  test('that is gone says so', async () => {
    showRules('?shown=rules&rule=99');
    expect(await screen.findByText(/There is no such rule any more/)).toBeDefined();
  });

  test('that names what is gone is not tried', async () => {
    showRules('?shown=rules&rule=1', {
      'POST rules/trial': {
        ...{ from: null, to: null, savedMicros: [], lostMicros: [], stops: [], worst: null },
        ...{ approximateTo: null, lines: [], stopped: [], waitsFor: 'a list that is gone' },
      },
    });
    expect(await screen.findByText('It can not be tried: it names a list that is gone.')).toBeDefined();
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
    'The rule “15 clicks” (version 2) stopped it on 20 Nov by 2 changes: in force.',
  );
  expect(inHand().textContent).toContain('It saved 7.50 in 9 days; 8.00 was promised.');
  expect(inHand().textContent).toContain('Since it was switched on, the rule stopped 2 terms and saved 7.50');
  expect(within(inHand()).getByRole('link').getAttribute('href')).toBe('/web/ledger?entry=31');
  await user.keyboard('{Enter}');
  expect(useRouter().push).toHaveBeenLastCalledWith('/web/ledger?entry=31');
  await user.keyboard('{ArrowDown}');
  expect(inHand().textContent).toContain('No day with data has come since.');
  expect(within(inHand()).queryByRole('link')).toBeNull();
});

test('a rule says why it did nothing, or stopped itself', async () => {
  const bounds = { changesADay: 5, costADayMicros: 12_500_000, leastKept: 0.7 };
  const rule = aRule({ how: { is: 'by itself', bounds } });
  const trouble = 'It promised 10.00 EUR in 9 days, and 2.00 EUR came.';
  showRules('?shown=rules', {
    'GET rules': {
      ...{ ready: [], campaigns: [], lists: [] },
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
      ...{ rules: [aRuleLine()], campaigns: [], lists: [] },
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
