import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { DuplicateLine, DuplicatesView, HandsOverView, SameKeyword } from '@/contracts/duplicates';
import { NOTHING_FRESH } from '../../testing/builders';
import { show, type Answers } from '../../testing/screen';
import { UntangleScreen } from '../untangle-screen';

const none = { count: 0, first: [] };
const aKeyword = (over: Partial<SameKeyword> = {}): SameKeyword => ({
  ...{ id: '5', text: 'bee hive', match: 'broad', status: 'live', campaign: 'Hives', adGroup: 'Starter' },
  ...{ bidMicros: 700_000, clicks: 40, costMicros: 20_000_000, conversions: 2, valueMicros: 0 },
  ...{ expectedMicros: 9_500_000, cvr: 0.05, impressionShare: null, quality: null, otherConversions: {} },
  ...over,
});
const other = aKeyword({
  ...{ id: '6', adGroup: 'Stands', clicks: 10, costMicros: 9_000_000, conversions: 0 },
  expectedMicros: 18_000_000,
});
const aLine = (over: Partial<DuplicateLine> = {}): DuplicateLine => ({
  ...{ key: '5-6', keywords: [aKeyword(), other], count: 2, sure: 0.93, isClear: true, left: null },
  ...over,
});
const jars = aLine({
  ...{ key: '7-8', sure: 0.6, isClear: false },
  keywords: [
    aKeyword({ id: '7', text: 'honey jar', match: 'exact', costMicros: 3_000_000 }),
    aKeyword({ id: '8', text: 'honey jars', match: 'phrase', status: 'paused', costMicros: 0, clicks: 0 }),
  ],
});
const aView = (over: Partial<DuplicatesView> = {}): DuplicatesView => ({
  ...{ days: 30, report: null, counts: { open: 2, left: 0 }, clear: 1, inTray: 1, lines: [aLine(), jars] },
  rungs: { 'text and match type': 2, text: 5, 'words in any order': 6, 'other forms': 9 },
  apart: {
    pairs: 1,
    splits: { count: 1, first: [{ text: 'smoker', by: ['location'], parts: [['North'], ['South']] }] },
  },
  unjudged: { count: 1, first: [{ text: '?', where: 'Hives · Starter', why: 'it holds no word' }] },
  ...over,
});
const served = (terms: number) => ({
  terms,
  clicks: 3 * terms,
  costMicros: 1_000_000 * terms,
  conversions: 0,
});
const handsOver = (ids: string[]): HandsOverView => ({
  keywords: ids.map((id) => ({
    ...{ id, others: served(4), takesOver: served(2) },
    stopped: { count: 1, first: ['bee hive plans'] },
    outOfReach: none,
  })),
});
const done = {
  outcome: 'drafted',
  changeId: 1,
  change: { kind: 'pause keyword', keywordId: '6' },
  said: '',
  heed: null,
} as const;

const showTwice = (more: Answers = {}, search = '') =>
  show(<UntangleScreen />, {
    answers: {
      'GET untangle': {
        ...{ days: 30, counts: { open: 0, meant: 0, left: 0, inTray: 0 } },
        ...{ lost: { conversions: 0, unknown: 0 }, unjudged: none, lines: [] },
      },
      'GET untangle/needless': {
        ...{
          counts: { open: 0, left: 0 },
          lines: [],
          twins: 0,
          proof: { adGroups: 0, real: 0, generated: 0, differences: 0 },
        },
      },
      'GET untangle/duplicates': aView(),
      'GET untangle/duplicates/hand-over': ({ query }) => handsOver(query.keywords!.split(',')),
      'POST tray': { outcomes: [done] },
      'POST untangle/look': NOTHING_FRESH,
      ...more,
    },
    search: `?shown=twice${search}`,
  });
/** The table, once its rows are there. */
async function grid() {
  const table = await screen.findByRole('grid', { name: 'Twice' });
  await within(table).findByRole('row', { name: /bee hive/ });
  return table;
}
const inHand = () => screen.getByRole('region', { name: 'In hand' });
const ended = (asked: { body: unknown }[]) =>
  (asked[0]!.body as { changes: { change: object }[] }).changes.map(({ change }) => change);

describe('keywords that stand twice', () => {
  test('are counted on each rung of the ladder; another rung is asked for by a press', async () => {
    const { user, asked, search } = showTwice();
    const ladder = await screen
      .findByRole('radiogroup', { name: 'How alike' })
      .catch(() => screen.getByRole('group', { name: 'How alike' }));
    await waitFor(() => expect(ladder.textContent).toContain('words in any order 6'));
    await user.click(within(ladder).getByText(/other forms/));
    await waitFor(() => expect(search().get('alike')).toBe('other forms'));
    expect(asked('GET untangle/duplicates').at(-1)!.query).toMatchObject({
      alike: 'other forms',
      sure: '90',
    });
    await user.click(screen.getByRole('checkbox', { name: 'paused' }));
    await waitFor(() => expect(asked('GET untangle/duplicates').at(-1)!.query.besides).toBe('paused'));
  });

  test('stand with what keyword reports tell of them, where these reach over the days', async () => {
    const [hive, stands] = aLine().keywords;
    const told = { impressionShare: 0.42, quality: 7, otherConversions: { Leads: 3 } };
    const lines = [aLine({ keywords: [{ ...hive!, ...told }, stands!] })];
    showTwice({
      'GET untangle/duplicates': aView({ lines, report: { from: '2026-10-22', to: '2026-11-18' } }),
    });
    const members = within(await screen.findByRole('region', { name: 'Who stays' }));
    expect(members.getAllByRole('columnheader').map(({ textContent }) => textContent)).toEqual([
      ...['keyword', 'bid', 'clicks', 'cost', 'conv.', 'cost a conv.', 'to expect', 'takes over'],
      ...['impr. share', 'quality', 'Leads'],
    ]);
    const [, first, second] = members.getAllByRole('row').map((row) => row.textContent);
    expect(first).toMatch(/42 %73$/);
    expect(second).toMatch(/––0$/);
    expect(screen.getByText(/By the keyword report of 22 Oct – 18 Nov/)).toBeDefined();
  });

  test('say that their figures are those of search terms, where no report tells', async () => {
    showTwice();
    expect(await screen.findByText(/By the search terms/)).toBeDefined();
    const members = within(await screen.findByRole('region', { name: 'Who stays' }));
    expect(members.queryByRole('columnheader', { name: 'quality' })).toBeNull();
  });

  test('say who should stay and why in numbers, and what that one takes over', async () => {
    showTwice();
    await waitFor(() => expect(inHand().textContent).toContain('Takes over 2 of 4 terms'));
    expect(inHand().textContent).toContain('expected to cost 9.50, beside 18.00 for the next; sure to 93');
    expect(inHand().textContent).toContain('A negative stops 1 where it stands: “bee hive plans”');
    const members = within(screen.getByRole('region', { name: 'Who stays' }));
    expect(members.getByRole('radio', { name: /Starter/ })).toHaveProperty('checked', true);
    expect(members.getAllByText('2 of 4')).toHaveLength(2);
  });

  test('Enter pauses the others; a digit chooses who stays; r removes', async () => {
    const { user, asked } = showTwice();
    (await grid()).focus();
    await screen.findByRole('region', { name: 'Who stays' });
    await user.keyboard('2{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect(asked('POST tray')[0]!.body).toEqual({
      changes: [
        {
          change: { kind: 'pause keyword', keywordId: '5' },
          why: 'untangled: “bee hive” (broad) stays in Hives · Stands',
          knot: { kind: 'duplicate', key: '5-6' },
        },
      ],
    });
    await user.keyboard('1r');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(2));
    expect(ended(asked('POST tray').slice(1))).toEqual([
      {
        ...{ kind: 'remove keyword', campaign: 'Hives', adGroup: 'Stands', text: 'bee hive', match: 'broad' },
        bidMicros: 700_000,
      },
    ]);
  });

  test('all clear ones go at once, and what is paused already is not paused again', async () => {
    const { user, asked } = showTwice();
    await user.click(await screen.findByRole('button', { name: /Pause the others of the clear one/ }));
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect(ended(asked('POST tray'))).toEqual([{ kind: 'pause keyword', keywordId: '6' }]);
    (await grid()).focus();
    await user.keyboard('{ArrowDown}{Enter}r');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(2));
    expect(ended(asked('POST tray').slice(1))).toMatchObject([
      { kind: 'remove keyword', text: 'honey jars' },
    ]);
  });

  test('what is kept apart on purpose, and what can not be judged, is named', async () => {
    const { user } = showTwice();
    await user.click(
      await screen.findByRole('button', { name: /1 pair kept apart on purpose, 1 can not be/ }),
    );
    const apart = await screen.findByRole('list', { name: 'Kept apart on purpose' });
    expect(apart.textContent).toContain('smoker by location: North | South');
    expect(screen.getByRole('list', { name: 'Can not be judged' }).textContent).toContain('it holds no word');
  });

  test('a sheet that comes back is looked at before it goes into the tray', async () => {
    const change = { kind: 'pause keyword', keywordId: '6' } as const;
    const knot = { kind: 'duplicate', key: '5-6' } as const;
    const { user, asked } = showTwice({
      'POST untangle/duplicates/read-sheet': {
        changes: [{ change, said: 'Pause “bee hive”', why: 'untangled: sold out', knot }],
        ...{ kept: 3, undecided: 2, unclear: [{ line: 7, why: '“stop” is no decision' }] },
      },
    });
    await grid();
    const file = new File(['group'], 'decided.xlsx');
    await user.upload(screen.getByLabelText('Sheet of duplicates'), file);
    expect((await screen.findByRole('list', { name: 'Decisions' })).textContent).toBe('Pause “bee hive”');
    expect(screen.getByText(/Row 7: “stop” is no decision/)).toBeDefined();
    await user.click(screen.getByRole('button', { name: 'Put 1 in the tray' }));
    await waitFor(() =>
      expect(asked('POST tray')[0]?.body).toEqual({
        changes: [{ change, why: 'untangled: sold out', knot }],
      }),
    );
  });

  test('without a known bid a keyword is paused, since its removal could not be undone', async () => {
    const [stays, goes] = aLine().keywords as [SameKeyword, SameKeyword];
    const line = aLine({ keywords: [stays, { ...goes, bidMicros: null }] });
    const { user, asked } = showTwice({ 'GET untangle/duplicates': aView({ lines: [line] }) });
    (await grid()).focus();
    expect(inHand().textContent).toContain('it is paused, not removed');
    await user.keyboard('r');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect(ended(asked('POST tray'))).toEqual([{ kind: 'pause keyword', keywordId: '6' }]);
  });
});
