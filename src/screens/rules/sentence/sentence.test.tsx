import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { Rule } from '@/core';
import { aRule, aRuleLine, aTrial, aView, showRules } from '../testing';

const inHand = () => screen.getByRole('region', { name: 'In hand' });
type Body = { rule: Rule; rules: object[]; changes: { change: object; why: string }[] };
const bodyOf = (asked: { body?: unknown }[], i = -1) => asked.at(i)!.body as Body;

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

  test('says how old a term is, what it is and how often it is searched for', async () => {
    const { user, asked } = showRules('?shown=rules&begin=');
    await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    const choose = choosing(user);
    await choose('Add a condition', /seen first/);
    await user.clear(figure('Days since it was seen first'));
    await user.type(figure('Days since it was seen first'), '9{Enter}');
    await choose('At least or at most: days since it was seen first', /or later/);
    await choose('Add a condition', /product codes/);
    await choose('Words or product codes', /^a product code/);
    await choose('Add a condition', /searches a month/);
    await waitFor(() =>
      expect(bodyOf(asked('POST rules/trial')).rule.when.slice(2)).toEqual([
        { of: 'age', is: 'at most', days: 9 },
        { of: 'kind', is: 'codes' },
        { of: 'searches', is: 'at least', value: 100 },
      ]),
    );
  });

  test('is about words at fault, says how surely, and stops them in the account', async () => {
    const { user, asked } = showRules('?shown=rules&begin=');
    await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    const choose = choosing(user);
    await choose('What it is about', /^word at fault/);
    await choose('Add a condition', /how surely it is at fault/);
    await choose('What is proposed', /in the account/);
    await waitFor(() => {
      const { rule } = bodyOf(asked('POST rules/trial'));
      expect(rule).toMatchObject({ about: 'words', then: { do: 'stop', at: 'account' } });
      expect(rule.when.at(-1)).toEqual({ of: 'fault', is: 'at least', probability: 0.9 });
    });
    expect(screen.queryByRole('button', { name: /^Match types/ })).toBeNull();
    expect(screen.getByRole('combobox', { name: 'After a yes or by itself' })).toBeTruthy();
    await choose('What it is about', /^search term/);
    const sentence = screen.getByRole('group', { name: 'The rule' }).textContent;
    expect(sentence).toContain('served by');
    expect(sentence).not.toContain('is so with');
  });

  test('is about campaigns, which spend their budget while they pay, and raises it', async () => {
    const { user, asked } = showRules('?shown=rules&begin=');
    await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    const choose = choosing(user);
    await choose('What it is about', /^campaign/);
    const figure = async (name: RegExp, value: string) => {
      const field = screen.getByRole('textbox', { name });
      await user.clear(field);
      await user.type(field, `${value}{Enter}`);
    };
    await figure(/^Of its budget/, '80');
    await figure(/^By how much/, '15');
    await figure(/^The highest budget/, '60');
    await waitFor(() => {
      const { rule } = bodyOf(asked('POST rules/trial'));
      expect(rule).toMatchObject({
        about: 'campaigns',
        when: [{ of: 'budget', share: 0.8 }, { of: 'target' }],
        then: { do: 'raise budget', byShare: 0.15, mostMicros: 60_000_000 },
      });
    });
    const sentence = screen.getByRole('group', { name: 'The rule' }).textContent;
    expect(sentence).toContain('after a yes.');
    expect(sentence).not.toContain('served by');
  });

  test('is about lists where they do not hang, and hangs one there', async () => {
    const { user, asked } = showRules('?shown=rules&begin=');
    await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    const choose = choosing(user);
    await choose('What it is about', /^list/);
    await waitFor(() =>
      expect(bodyOf(asked('POST rules/trial')).rule).toMatchObject({
        about: 'lists',
        then: { do: 'hang', list: null },
      }),
    );
    await choose('What is proposed', /^hang it there, if it is Work/);
    await waitFor(() =>
      expect(bodyOf(asked('POST rules/trial')).rule).toMatchObject({ then: { do: 'hang', list: '5' } }),
    );
    const sentence = screen.getByRole('group', { name: 'The rule' }).textContent;
    expect(sentence).toContain('When a list where it does not hang');
    expect(sentence).toContain('after a yes.');
  });

  test('names labels and product groups, and which keywords served', async () => {
    const { user, asked } = showRules('?shown=rules&begin=');
    await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    const pick = async (name: string, option: string) => {
      await user.click(screen.getByRole('button', { name }));
      await user.click(await screen.findByRole('option', { name: option }));
    };
    await choosing(user)('Where', /all campaigns but/);
    await pick('Choose a campaign', 'label spring');
    await pick('Choose a campaign', 'product group Smokers');
    await pick('Match types of the keywords that served it', 'broad');
    await pick('Match types of the keywords that served it', 'phrase');
    await user.click(screen.getByRole('button', { name: 'broad ×' }));
    const { where } = bodyOf(asked('POST rules/trial')).rule;
    expect(where).toEqual({
      ...{ is: 'not in', campaigns: [], labels: ['spring'], productGroups: ['Smokers'] },
      servedBy: ['phrase'],
    });
    await choosing(user)('Where', /in all campaigns$/);
    await waitFor(() =>
      expect(bodyOf(asked('POST rules/trial')).rule.where).toEqual({
        ...{ is: 'everywhere', campaigns: [], servedBy: ['phrase'] },
      }),
    );
  });

  test('that sets aside says until when, does nothing by itself, and stops nobody', async () => {
    const { user, asked } = showRules('?shown=rules&begin=');
    await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    await choosing(user)('What is proposed', /set it aside/);
    await user.clear(figure('More clicks until it comes back'));
    await user.type(figure('More clicks until it comes back'), '30{Enter}');
    await waitFor(() =>
      expect(bodyOf(asked('POST rules/trial')).rule.then).toEqual({ do: 'set aside', moreClicks: 30 }),
    );
    expect(screen.queryByRole('combobox', { name: 'After a yes or by itself' })).toBeNull();
    expect(inHand().textContent).toContain(
      'Would have set aside 83 terms in 3 days, which cost since 884.70',
    );
    await choosing(user)('What is proposed', /keep it open/);
    await waitFor(() => expect(inHand().textContent).toContain('Would have kept open'));
    expect(screen.getAllByRole('columnheader', { name: 'cost since' })).toHaveLength(2);
    expect(screen.queryByRole('columnheader', { name: 'wrongly stopped' })).toBeNull();
  });

  test('is about keywords: it pauses them, or sets their bids between a least and a highest', async () => {
    const { user, asked } = showRules('?shown=rules&begin=');
    await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    const choose = choosing(user);
    await choose('Add a condition', /product codes/);
    await choose('What it is about', /^keyword$/);
    await waitFor(() =>
      expect(bodyOf(asked('POST rules/trial')).rule).toMatchObject({
        ...{ about: 'keywords', then: { do: 'pause' }, how: { is: 'by approval' } },
        when: [{ of: 'clicks' }, { of: 'conversions' }],
      }),
    );
    expect(inHand().textContent).toContain('Would have paused 83 keywords in 3 days and saved 884.70');
    await choose('What is proposed', /lower its bid/);
    await user.clear(figure('The least bid, in EUR'));
    await user.type(figure('The least bid, in EUR'), '2.50{Enter}');
    await waitFor(() =>
      expect(bodyOf(asked('POST rules/trial')).rule.then).toEqual({
        ...{ do: 'set bid', way: 'lower', leastMicros: 2_500_000, mostMicros: 2_500_000 },
      }),
    );
    expect(inHand().textContent).toContain('Would have changed 83 keywords');
    await choose('What it is about', /search term/);
    expect(screen.getByRole('combobox', { name: 'What is proposed' }).textContent).toContain(
      'stop it in its ad groups',
    );
    await waitFor(() => expect(inHand().textContent).toContain('Would have stopped 83 terms'));
  });

  test('names the rules that want the opposite, before anything is done', async () => {
    const against = [{ rule: 'Pays well', does: 'keep' as const, terms: 4, first: ['bee hive kit'] }];
    showRules('?shown=rules&begin=', {
      'POST rules/trial': ({ body }) => ({ ...aTrial((body as { rule: Rule }).rule), against }),
    });
    const list = await screen.findByRole('list', { name: 'Rules that want the opposite' });
    expect(list.textContent).toContain(
      'The rule “Pays well” would keep open 4 terms that this one would have stopped: bee hive kit and 3 more.',
    );
  });

  test('says that the rule acts by itself, and within what', async () => {
    const { user, asked } = showRules('?shown=rules&begin=');
    await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    const choose = choosing(user);
    await choose('After a yes or by itself', /by itself/);
    await user.clear(figure('Changes a day at most'));
    await user.type(figure('Changes a day at most'), '5{Enter}');
    await user.clear(figure('Cost of what it is about a day at most, in EUR'));
    await user.type(figure('Cost of what it is about a day at most, in EUR'), '12.50{Enter}');
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

  test('that pauses keywords by itself promises nothing that it could be held to', async () => {
    const { user, asked } = showRules('?shown=rules&begin=');
    const choose = choosing(user);
    await screen.findByRole('table', { name: 'Neighbouring thresholds' });
    await choose('What it is about', /^keyword/);
    await choose('After a yes or by itself', /by itself/);
    const sentence = () => screen.getByRole('group', { name: 'The rule' }).textContent;
    expect(sentence()).toContain('of keywords that cost');
    expect(sentence()).not.toContain('It stops itself');
    await user.type(screen.getByRole('textbox', { name: /^Name/ }), 'Pauses');
    await user.click(screen.getByRole('button', { name: 'Switch it on' }));
    await waitFor(() =>
      expect(bodyOf(asked('POST rules'), 0).rule).toMatchObject({
        then: { do: 'pause' },
        how: { is: 'by itself' },
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
      {
        'GET rules': aView({ rules: [off], ready: [], sets: [] }),
      },
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
      {
        'GET rules': aView({ rules: [off], ready: [], sets: [] }),
      },
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
        ...{ approximateTo: null, lines: [], stopped: [], against: [], waitsFor: 'a list that is gone' },
      },
    });
    expect(await screen.findByText('It can not be tried: it names a list that is gone.')).toBeDefined();
  });
});
