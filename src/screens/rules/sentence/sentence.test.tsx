import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { Rule } from '@/core';
import { aTrial, bodyOf, choosing, inHand, showRules } from '../testing';

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
});
