import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { PassAnswer, PassTerm, PassWord } from '@/contracts/pass';
import type { DraftOutcome } from '@/contracts/tray';
import { aWeight } from '@/screens/testing/builders';
import { Decline, show, type Answers } from '@/screens/testing/screen';
import { SiftScreen } from '../sift-screen';

const aWord = (ngram: string, over: Partial<PassWord> = {}): PassWord => ({
  ngram,
  fault: { probability: 0.93, expected: 4.2, conversions: 0, terms: 9, clicks: 120 },
  negatives: { count: 1, first: [{ text: ngram, match: 'phrase' }] },
  leavesOpen: { count: 0, first: [] },
  places: [
    {
      ...{ place: { kind: 'list', id: '7' }, name: 'the list Work', note: '“summer job” stands there' },
      ...{ stops: aWeight({ terms: 8, clicks: 80, costMicros: 40_000_000, conversions: 0 }), risks: 0.4 },
    },
    {
      ...{ place: { kind: 'account', id: null }, name: 'the whole account', note: null },
      ...{ stops: aWeight({ terms: 9, clicks: 90, costMicros: 44_000_000, conversions: 0 }), risks: 0.5 },
    },
  ],
  ...over,
});

const aTerm = (id: number, raw: string, worse = 0.96): PassTerm => ({
  ...{ id, raw, misses: 0.97, clicks: 90, conversions: 0, risks: 0.2 },
  beside: {
    ...{ expected: 2.1, worse },
    adGroup: {
      ...{ id: '1', name: 'Silver', campaign: 'Hives', clicks: 900, conversions: 4, rate: 0.005 },
      ...{ misses: 0.99, paysMicros: 180_000 },
    },
  },
  campaigns: { count: 1, first: ['Hives'] },
  stops: aWeight({ terms: 1, clicks: 30, costMicros: 12_000_000, conversions: 0 }),
});

const ANSWER: PassAnswer = {
  words: [
    aWord('jobs'),
    aWord('wholesale', {
      negatives: { count: 7, first: [{ text: 'hive wholesale', match: 'phrase' }] },
      leavesOpen: { count: 1, first: ['bee wholesale'] },
    }),
  ],
  barred: [
    {
      ...{ ngram: 'maps', by: 'live keyword', names: { count: 1, first: ['bee maps'] } },
      fault: { probability: 0.9, expected: 4, conversions: 0, terms: 3, clicks: 90 },
    },
  ],
  terms: [aTerm(11, 'silver hive used')],
  groups: [
    {
      ...{ name: 'Silver', campaign: 'Hives', terms: 3, costMicros: 30_000_000, clicks: 900, conversions: 4 },
      paysMicros: 180_000,
    },
  ],
  left: { count: 1, costMicros: 9_000_000, first: [aTerm(12, 'hive left over', 0.5)] },
  since: '2026-08-24',
  gain: { words: { costMicros: 84_000_000, risks: 0.8 }, terms: { costMicros: 12_000_000, risks: 0.2 } },
  ...{ stoppedMicros: 24_000_000, conversions: 210 },
};

const drafted: DraftOutcome = {
  ...{ outcome: 'drafted', changeId: 5, said: 'Stop “jobs” (phrase) in list Work', heed: null },
  change: { kind: 'add negative', text: 'jobs', match: 'phrase', place: { kind: 'list', id: '7' } },
};

const showPass = (more: Answers = {}) =>
  show(<SiftScreen />, {
    answers: { 'GET sift/pass': ANSWER, 'POST sift/pass/draft': { outcomes: [drafted] }, ...more },
    search: '?show=pass',
  });

const grid = () => screen.findByRole('grid', { name: 'What surely can’t pay' });
const inHand = () => screen.getByRole('region', { name: 'In hand' });
const stepOf = (name: RegExp) => screen.getByText(name).closest<HTMLElement>('[role=row]')!;

describe('the guided pass', () => {
  test('says how far it is, what is still to gain, and what that risks', async () => {
    showPass();
    await grid();
    expect(screen.getByText('96.00')).toBeDefined();
    expect(screen.getByRole('status').textContent).toContain('20 % of it in the tray: 24.00');
    expect(
      screen.getByText(/risks about 1\.0 of 210 conversions; judged by all days since 24 Aug/),
    ).toBeDefined();
    expect(stepOf(/1 Words at fault/).textContent).toContain('2, 84.00, at the risk of 0.8 conversions');
    expect(stepOf(/1 Words at fault/).textContent).toContain('1 not offered');
  });

  test('has the focus, and goes from step to step by arrows', async () => {
    const { user } = showPass();
    const list = await grid();
    await waitFor(() => expect(document.activeElement).toBe(list));
    expect(within(inHand()).getByText(/would have brought 4\.2 conversions; it brought 0/)).toBeDefined();
    await user.keyboard('{ArrowDown}');
    expect(within(inHand()).getByText(/It would stop 1 protected term \(bee wholesale\)/)).toBeDefined();
    await user.keyboard('{ArrowDown}');
    expect(inHand().textContent).toContain(
      'Its ad groups would have brought 2.1: worse than its neighbours, 96 % sure; a case for a negative.',
    );
    await user.keyboard('{ArrowDown}');
    expect(within(inHand()).getByText(/The whole ad group Silver misses the target/)).toBeDefined();
    expect(within(inHand()).getByText(/It would pay at 0\.18 a click/)).toBeDefined();
    await user.keyboard('{ArrowDown}{Home}');
    expect(within(inHand()).getByText('jobs')).toBeDefined();
  });

  test('puts a word in the tray at the place in hand, with its undo', async () => {
    const { user, asked } = showPass({ 'DELETE tray': { removed: [drafted.change] } });
    await grid();
    await user.keyboard('p{Enter}');
    await waitFor(() => expect(asked('POST sift/pass/draft')).toHaveLength(1));
    expect(asked('POST sift/pass/draft')[0]!.body).toEqual({
      words: [{ ngram: 'jobs', place: { kind: 'account', id: null } }],
    });
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('DELETE tray')[0]!.body).toEqual({ changeIds: [5] }));
  });

  test('keys pressed fast are all heard: what was decided leaves at once', async () => {
    const { user, asked } = showPass({ 'POST sift/pass/draft': () => new Promise(() => undefined) });
    await grid();
    await user.keyboard('{Enter}{Enter}{Enter}');
    await waitFor(() => expect(asked('POST sift/pass/draft').length).toBeGreaterThan(0));
    expect(within(inHand()).getByText('hive left over')).toBeDefined();
    expect(stepOf(/1 Words at fault/).textContent).toContain('nothing, or all of it is decided');
  });

  test('what fails stands there again, with the reason', async () => {
    const { user } = showPass({
      'POST sift/pass/draft': () => Promise.reject(new Decline('This is not offered any more.')),
    });
    await grid();
    await user.keyboard('{Enter}');
    expect(await screen.findByText('This is not offered any more.')).toBeDefined();
    await waitFor(() => expect(within(inHand()).getByText('jobs')).toBeDefined());
  });

  test('Shift Enter puts all of a step in the tray, and only of it', async () => {
    const { user, asked } = showPass();
    await grid();
    await user.keyboard('{Shift>}{Enter}{/Shift}');
    await waitFor(() => expect(asked('POST sift/pass/draft')).toHaveLength(1));
    expect(asked('POST sift/pass/draft')[0]!.body).toEqual({
      words: [{ ngram: 'jobs', place: { kind: 'list', id: '7' } }, { ngram: 'wholesale' }],
    });
    await user.keyboard('{ArrowDown}{ArrowDown}{Shift>}{Enter}{/Shift}');
    await waitFor(() => expect(asked('POST sift/pass/draft')).toHaveLength(2));
    expect(asked('POST sift/pass/draft')[1]!.body).toEqual({ words: [], terms: [11] });
  });

  test('what is not at fault is called neutral; a term is kept, or set aside', async () => {
    const verdict = { was: { is: 'open' as const }, said: 'done' };
    const { user, asked } = showPass({ 'POST words': { was: null }, 'POST verdict': verdict });
    await grid();
    await user.keyboard('l');
    await waitFor(() => expect(asked('POST words')[0]!.body).toEqual({ text: 'jobs', tag: 'neutral' }));
    await user.keyboard('{End}o');
    await waitFor(() => expect(asked('POST verdict')).toHaveLength(1));
    expect(asked('POST verdict')[0]!.body).toMatchObject({ raw: 'hive left over', verdict: { is: 'kept' } });
    await user.keyboard('{ArrowUp}l');
    await waitFor(() => expect(asked('POST verdict')).toHaveLength(2));
    expect(asked('POST verdict')[1]!.body).toMatchObject({
      raw: 'silver hive used',
      verdict: { is: 'aside' },
    });
  });

  test('ad groups that miss as a whole are named with the bid at which they would pay', async () => {
    const { user } = showPass();
    await grid();
    await user.click(screen.getByRole('button', { name: '1 ad group to bid less' }));
    expect(
      await screen.findByText(/900 clicks, 4 conversions; 3 terms that surely miss cost 30\.00/),
    ).toBeDefined();
  });

  test('says so when nothing is left, and when it can’t be reckoned', async () => {
    const nothing = {
      ...{ ...ANSWER, words: [], barred: [], terms: [], groups: [] },
      ...{ left: { count: 0, costMicros: 0, first: [] }, stoppedMicros: 0 },
      gain: { words: { costMicros: 0, risks: 0 }, terms: { costMicros: 0, risks: 0 } },
    };
    const { unmount } = showPass({ 'GET sift/pass': nothing });
    await grid();
    expect(within(inHand()).getByText('Nothing is left of what can’t pay in this window.')).toBeDefined();
    expect(screen.getByText('By what is known, nothing surely can’t pay.')).toBeDefined();
    expect(stepOf(/3 What is left/).textContent).toContain('nothing, or all of it is decided');
    unmount();
    showPass({ 'GET sift/pass': () => Promise.reject(new Decline('The database is down.')) });
    expect(await screen.findByText('The database is down.')).toBeDefined();
  });
});
