import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { Change } from '@/core';
import type {
  ConflictLine,
  ConflictsView,
  MendsView,
  MisspeltView,
  NeedlessView,
} from '@/contracts/untangle';
import { NOTHING_FRESH } from '../testing/builders';
import { Decline, show, type Answers } from '../testing/screen';
import { UntangleScreen } from './untangle-screen';

const none = { count: 0, first: [] };
const aConflict = (over: Partial<ConflictLine> = {}): ConflictLine => ({
  key: 'free',
  negative: { text: 'free', match: 'broad', place: { kind: 'list', id: '3' }, placeName: 'list Free' },
  severity: 'shut out',
  keyword: {
    ...{ id: '5', text: 'Free standing hive', match: 'phrase' },
    ...{ adGroup: 'Stands', campaign: 'Hives' },
  },
  ...{ protected: none, seat: null, left: null },
  lost: { terms: 9, clicks: 61, costMicros: 186_400_000, conversions: 4.1, valueMicros: 0 },
  ...over,
});
const course = aConflict({
  ...{ key: 'course', severity: 'protected', keyword: null, lost: null },
  negative: { ...aConflict().negative, text: 'course', placeName: 'campaign Hives' },
  protected: { count: 5, first: ['bee course', 'hive course', 'course kit'] },
});
const aView = (over: Partial<ConflictsView> = {}): ConflictsView => ({
  ...{ days: 30, counts: { open: 2, meant: 1, left: 0, inTray: 3 } },
  ...{ lost: { conversions: 4.1, unknown: 1 }, unjudged: none, lines: [aConflict(), course] },
  ...over,
});

const place = { kind: 'list', id: '3' } as const;
const remove: Change = { kind: 'remove negative', text: 'free', match: 'broad', place };
const longer: Change = { kind: 'add negative', text: 'free plans', match: 'phrase', place };
const aMendsView = (key: string): MendsView => ({
  ...{
    key,
    since: '2025-09-28',
    hangsOn: 12,
    stops: 338,
    passing: { count: 1, first: ['free standing hive'] },
  },
  mends: [
    {
      ...{ how: 'removed', said: 'Let “free” (broad) through again', changes: [remove], letsPass: true },
      opens: { terms: 203, conversions: 4.3, costMicros: 400_000_000, wastedMicros: 311_500_000 },
      ...{ stillStops: 135, isProposed: false },
    },
    {
      ...{ how: 'longer', said: 'Stop “free plans” in its place', changes: [longer, remove], letsPass: true },
      opens: { terms: 9, conversions: 4.1, costMicros: 1_000_000, wastedMicros: 0 },
      ...{ stillStops: 329, isProposed: true },
    },
    {
      ...{ how: 'paused', said: 'Pause it', changes: [{ kind: 'pause keyword', keywordId: '5' }] },
      ...{ opens: null, letsPass: false, stillStops: 338, isProposed: false },
    },
  ],
});

const jobs = { text: 'bee jobs', match: 'exact', place, placeName: 'list Free' } as const;
const aNeedlessView: NeedlessView = {
  counts: { open: 2, left: 0 },
  lines: [
    {
      ...{ key: 'jobs', negative: jobs, isLasting: true, left: null },
      coveredBy: { ...jobs, text: 'jobs', match: 'broad' },
    },
    {
      ...{ key: 'song', negative: { ...jobs, text: 'bee song' }, isLasting: false, left: null },
      coveredBy: { ...jobs, text: 'song', match: 'broad' },
    },
  ],
  ...{ twins: 1, proof: { adGroups: 6, real: 4, generated: 8, differences: 0 } },
};

const showUntangle = (more: Answers = {}, search = '') =>
  show(<UntangleScreen />, {
    answers: {
      'GET untangle': aView(),
      'GET untangle/needless': aNeedlessView,
      'POST untangle/look': NOTHING_FRESH,
      'GET untangle/mends': ({ query }) => aMendsView(query.key!),
      'POST tray': {
        outcomes: [{ outcome: 'drafted', changeId: 1, change: remove, said: 'Done.', heed: null }],
      },
      ...more,
    },
    search,
  });
const grid = () => screen.findByRole('grid', { name: 'Conflicts' });
const inHand = () => screen.getByRole('region', { name: 'In hand' });

describe('conflicts', () => {
  test('say what they cost, the costliest first; what is not known is called so', async () => {
    showUntangle();
    const first = await within(await grid()).findByRole('row', { name: /186\.40/ });
    expect(within(first).getByText('Free').tagName).toBe('MARK');
    const second = within(await grid()).getByRole('row', { name: /and 2 more/ });
    expect(second.textContent).toContain('not known');
    expect(screen.getByText(/cost about/).textContent).toBe(
      '2 conflicts cost about 4.1 conversions in 30 days; of 1 it is not known; 3 more are mended by the tray; 2 negatives are needless.',
    );
  });

  test('show in hand by which road the negative stops, and since when', async () => {
    showUntangle();
    await waitFor(() => expect(inHand().textContent).toContain('which hangs on 12 campaigns'));
    expect(inHand().textContent).toContain('since 28 Sep 2025');
    expect(inHand().textContent).toContain('Has to pass: “free standing hive”.');
  });

  test('that are meant so name the keyword for which the queries are kept', async () => {
    const seat = { ...aConflict().keyword!, text: 'free hive', match: 'exact' as const, adGroup: 'Exact' };
    showUntangle({ 'GET untangle': aView({ lines: [aConflict({ seat })] }) }, '?pile=meant');
    expect(await screen.findByText(/Meant so: its queries are kept for “free hive” \(exact\)/)).toBeDefined();
  });

  test('that are none say so, and what declines is told', async () => {
    const { answer } = showUntangle({ 'GET untangle': aView({ lines: [] }) });
    expect(await screen.findByText(/No negative works against/)).toBeDefined();
    answer({});
    showUntangle({
      'GET untangle': () => {
        throw new Decline('The account is not there.', 404);
      },
    });
    expect(await screen.findByText('The account is not there.')).toBeDefined();
  });
});

describe('the mends', () => {
  test('stand side by side; the proposed one is chosen, Enter puts it in the tray', async () => {
    const { user, asked } = showUntangle();
    const mends = within(await screen.findByRole('region', { name: 'Mends' }));
    expect(await mends.findByRole('radio', { name: /Stop “free plans”/ })).toHaveProperty('checked', true);
    expect(mends.getByText('329 of 338')).toBeDefined();
    expect(mends.getByText('not known')).toBeDefined();
    (await grid()).focus();
    await user.keyboard('{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    const why = 'untangled: Stop “free plans” in its place';
    const knot = { kind: 'conflict', key: 'free' };
    expect(asked('POST tray')[0]!.body).toEqual({
      changes: [
        { change: longer, why, knot },
        { change: remove, why, knot },
      ],
    });
  });

  test('another one is chosen by its digit, for the conflict in hand alone', async () => {
    const { user, asked } = showUntangle();
    const mends = within(await screen.findByRole('region', { name: 'Mends' }));
    await mends.findByRole('radio', { name: /Stop “free plans”/ });
    (await grid()).focus();
    await user.keyboard('1');
    expect(mends.getByRole('radio', { name: /Let “free”/ })).toHaveProperty('checked', true);
    await user.keyboard('{ArrowDown}');
    expect(await mends.findByRole('radio', { name: /Stop “free plans”/ })).toHaveProperty('checked', true);
    await user.keyboard('{ArrowUp}9{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
  });
});

describe('conflicts stand together', () => {
  test('by their negative, what costs most in all first', async () => {
    const of = (key: string, text: string, conversions: number) =>
      aConflict({
        ...{ key, lost: { terms: 1, clicks: 9, costMicros: 1, conversions, valueMicros: 0 } },
        keyword: { ...aConflict().keyword!, text: `hive ${key}` },
        negative: { ...aConflict().negative, text },
      });
    const lines = [of('one', 'plans', 3), of('two', 'cheap', 2), of('three', 'cheap', 2)];
    const { user, search } = showUntangle({ 'GET untangle': aView({ lines }) });
    await user.click(await screen.findByRole('combobox', { name: 'Together by' }));
    await user.click(await screen.findByRole('option', { name: 'negative' }));
    await waitFor(() => expect(search().get('grouped')).toBe('negative'));
    const [, ...rows] = within(await grid()).getAllByRole('row');
    expect(rows.map(({ textContent }) => textContent!.slice(0, 16))).toEqual([
      expect.stringMatching(/^2 × 4 conv\.cheap/),
      expect.stringMatching(/^cheap/),
      expect.stringMatching(/^1 × 3 conv\.plans/),
    ]);
  });

  test('what can not be judged is listed with the reason', async () => {
    const unjudged = {
      count: 1,
      first: [{ text: '???', where: 'Hives · Starter', why: 'it holds no word' }],
    };
    const { user } = showUntangle({ 'GET untangle': aView({ unjudged }) });
    await user.click(await screen.findByRole('button', { name: '1 can not be judged' }));
    expect((await screen.findByRole('list', { name: 'Can not be judged' })).textContent).toContain(
      '“???” in Hives · Starter: it holds no word',
    );
  });
});

describe('a smaller set', () => {
  test('is told with what goes and comes, and goes to the tray as a whole', async () => {
    const set = { kind: 'list', id: '3' } as const;
    const { user, asked } = showUntangle(
      {
        'GET untangle/smaller': {
          lines: [
            {
              ...{ key: 'list 3', place: set, placeName: 'list Free', before: 12, after: 4, terms: 300 },
              ...{ kept: 3, added: 1, removed: 9, idle: 2, fixed: 1 },
            },
          ],
          fixed: 1,
        },
        'GET untangle/smaller/set': {
          ...{ key: 'list 3', opened: none, changes: [longer, remove] },
          added: { count: 1, first: [{ text: 'free plans', match: 'phrase' }] },
          removed: { count: 9, first: [{ text: 'free', match: 'broad' }] },
          noMore: { count: 1, first: ['free yacht'] },
          fromThenOn: { count: 3, first: ['free plans'] },
        },
      },
      '?shown=smaller',
    );
    const changes = await screen.findByRole('region', { name: 'What changes' });
    expect(changes.textContent).toMatch(/9 negatives go.*and 8 more.*1 negative comes/);
    expect(inHand().textContent).toContain('12 negatives stop 300 terms');
    expect(inHand().textContent).toContain('stopped no more, such as: “free yacht”.');
    expect(inHand().textContent).toContain('from then on, such as: “free plans” and 2 more.');
    (await screen.findByRole('grid', { name: 'Smaller sets' })).focus();
    await user.keyboard('{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    const { changes: put } = asked('POST tray')[0]!.body as { changes: { change: Change; why: string }[] };
    expect(put.map(({ change }) => change)).toEqual([longer, remove]);
    expect(put[0]!.why).toBe('smaller set: 4 negatives stop the same 300 terms as 12');
  });
});

describe('what came since the last look', () => {
  const fresh = { ...NOTHING_FRESH.fresh, conflict: ['course'] };

  test('comes first, and is called new', async () => {
    showUntangle({ 'POST untangle/look': { ...NOTHING_FRESH, fresh } });
    const rows = within(await grid());
    await waitFor(() => expect(rows.getByRole('columnheader', { name: /^new/ })).toBeDefined());
    const [, first, second] = rows.getAllByRole('row');
    expect(first!.textContent).toMatch(/^new.*course/);
    expect(second!.textContent).not.toMatch(/^new/);
  });

  test('how it went is shown on a press, day by day', async () => {
    const of = (count: number) => ({ count, costMicros: 5_000_000, conversions: 2 });
    const days = [
      { day: '2026-11-01', conflict: of(9), overlap: of(40) },
      { day: '2026-11-20', conflict: of(2), overlap: of(30), duplicate: of(4) },
    ];
    const { user } = showUntangle({ 'POST untangle/look': { ...NOTHING_FRESH, days } });
    await user.click(await screen.findByRole('button', { name: '36 knots in all, 49 on 1 Nov' }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Knots over time' }));
    const rows = dialog.getAllByRole('row', { hidden: true }).map((row) => row.textContent);
    expect(rows).toEqual([
      'dayconflictstwiceserved by severalcostconv. before',
      '20 Nov 2026243015.002',
      '1 Nov 20269–4010.002',
    ]);
  });
});

describe('leaving', () => {
  test.each([
    ['needless', 'Needless', 'needless', 'jobs'],
    ['misspelt', 'Misspelt', 'misspelt', 'documentry'],
  ] as const)('a knot that is %s asks why, too', async (shown, name, kind, key) => {
    const negative = { text: 'documentry', match: 'phrase', place, placeName: 'list Free' } as const;
    const would = { terms: 0, clicks: 0, costMicros: 0, conversions: 0, valueMicros: 0, impressions: 0 };
    const misspelt = { ...{ key, negative, meant: 'documentary', would, hits: none }, left: null };
    const { user, asked } = showUntangle(
      {
        'POST untangle/left': {},
        'GET untangle/misspelt': { counts: { open: 1, left: 0 }, lines: [misspelt] },
      },
      `?shown=${shown}`,
    );
    const table = await screen.findByRole('grid', { name });
    await within(table).findByRole('row', { name: new RegExp(key) });
    table.focus();
    await user.keyboard('l');
    await user.type(within(inHand()).getByRole('textbox', { name: /Why it is left/ }), 'Wanted so{Enter}');
    await waitFor(() => expect(asked('POST untangle/left')).toHaveLength(1));
    expect(asked('POST untangle/left')[0]!.body).toMatchObject({ kind, key, why: 'Wanted so' });
  });

  test('asks why and until when, and can be undone', async () => {
    const { user, asked } = showUntangle({
      'POST untangle/left': {},
      'DELETE untangle/left': { why: 'Sold out', until: null },
    });
    await waitFor(() => expect(inHand().textContent).toContain('hangs on'));
    (await grid()).focus();
    await user.keyboard('l');
    await user.click(within(inHand()).getByRole('button', { name: 'Leave it' }));
    expect(await within(inHand()).findByText('Say why it is left.')).toBeDefined();
    await user.type(within(inHand()).getByRole('textbox', { name: /Why it is left/ }), 'Sold out{Enter}');
    await waitFor(() => expect(asked('POST untangle/left')).toHaveLength(1));
    expect(asked('POST untangle/left')[0]!.body).toEqual({
      ...{ kind: 'conflict', key: 'free', why: 'Sold out', until: null },
    });
    expect(document.activeElement).toBe(await grid());
    await user.click(await screen.findByRole('button', { name: /Undo/ }));
    await waitFor(() =>
      expect(asked('DELETE untangle/left')[0]?.body).toEqual({ kind: 'conflict', key: 'free' }),
    );
  });

  test('is told with who did it, and taken up again by the same key', async () => {
    const left = { why: 'Sold out', until: '2026-12-01', by: 'Tobias Finch', at: '2026-11-20T09:00:00Z' };
    const { user, asked } = showUntangle(
      {
        'GET untangle': aView({ lines: [aConflict({ left })] }),
        'DELETE untangle/left': { why: 'Sold out', until: null },
      },
      '?pile=left',
    );
    expect(await screen.findByText(/Left by Tobias Finch/)).toBeDefined();
    (await grid()).focus();
    await user.keyboard('l');
    await waitFor(() => expect(asked('DELETE untangle/left')).toHaveLength(1));
  });
});

describe('what is needless', () => {
  test('is told with what covers it and how that was tried; it goes one by one, marked, or all at once', async () => {
    const { user, asked } = showUntangle({}, '?shown=needless');
    expect(await screen.findByText(/Tried in 6 ad groups/)).toBeDefined();
    expect(screen.getByText(/no gate answers otherwise.*1 twin in one place/)).toBeDefined();
    expect(inHand().textContent).toContain('“jobs” (broad) in list Free stops, too');
    (await screen.findByRole('grid', { name: 'Needless' })).focus();
    await user.keyboard('{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect(asked('POST tray')[0]!.body).toMatchObject({
      changes: [{ change: { kind: 'remove negative', text: 'bee jobs', match: 'exact', place } }],
    });
    await user.click(screen.getByRole('button', { name: 'Remove the one that lasts' }));
    await waitFor(() => expect(asked('POST tray')).toHaveLength(2));
    expect(asked('POST tray')[1]!.body).toMatchObject({ changes: [{ change: { text: 'bee jobs' } }] });
  });
});

describe('what is misspelt', () => {
  const aLine = (over: Partial<MisspeltView['lines'][number]> = {}): MisspeltView['lines'][number] => ({
    ...{ key: 'documentry', meant: 'documentary', hits: none, left: null },
    negative: { text: 'documentry', match: 'phrase', place, placeName: 'list Free' },
    would: { terms: 3, clicks: 9, costMicros: 4_500_000, conversions: 0, valueMicros: 0, impressions: 40 },
    ...over,
  });

  test('says what was meant and what that would stop; it is put right, or removed', async () => {
    const { user, asked } = showUntangle(
      { 'GET untangle/misspelt': { counts: { open: 1, left: 0 }, lines: [aLine()] } },
      '?shown=misspelt',
    );
    await waitFor(() =>
      expect(inHand().textContent).toContain('“documentary” would stop 3 terms there: 9 clicks, 4.50'),
    );
    (await screen.findByRole('grid', { name: 'Misspelt' })).focus();
    await user.keyboard('{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect(asked('POST tray')[0]!.body).toMatchObject({
      changes: [
        { change: { kind: 'add negative', text: 'documentary', match: 'phrase', place } },
        { change: { kind: 'remove negative', text: 'documentry', match: 'phrase', place } },
      ],
    });
    await user.keyboard('r');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(2));
  });

  test('what would stop a protected term can only be removed', async () => {
    const hits = { count: 4, first: ['bee documentary'] };
    const { user, asked } = showUntangle(
      { 'GET untangle/misspelt': { counts: { open: 1, left: 0 }, lines: [aLine({ hits })] } },
      '?shown=misspelt',
    );
    await waitFor(() => expect(inHand().textContent).toContain('It would stop 4 protected terms'));
    expect(screen.getByRole('button', { name: /Put it right/ })).toHaveProperty('disabled', true);
    (await screen.findByRole('grid', { name: 'Misspelt' })).focus();
    await user.keyboard('{Enter}r');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect(asked('POST tray')[0]!.body).toMatchObject({ changes: [{ change: { kind: 'remove negative' } }] });
  });
});
