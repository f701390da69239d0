import { screen, waitFor } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { aRule, aRuleLine, aView, bodyOf, choosing, showRules } from '../testing';

describe('a rule in hand', () => {
  const figure = (name: string) => screen.getByRole('textbox', { name });
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
