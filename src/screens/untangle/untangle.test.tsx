import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { NOTHING_FRESH } from '../testing/builders';
import { Decline } from '../testing/screen';
import { none, aConflict, aView, place, remove, longer, showUntangle, grid, inHand } from './testing';

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

describe('a search that takes long', () => {
  const never = () => new Promise<never>(() => undefined);
  const searching = {
    ...{ 'GET untangle': never, 'GET untangle/needless': never },
    'GET work': { work: [{ stage: 'conflicts' as const, done: 35_000, of: 100_000 }] },
  };

  test('tells how far it is, can be stopped, and begun again', async () => {
    const { user, asked, answer } = showUntangle(searching);
    expect(
      await screen.findByText(
        'Holding keywords against negatives: 35,000 of 100,000',
        {},
        { timeout: 5_000 },
      ),
    ).toBeDefined();
    expect(screen.getByRole('progressbar')).toHaveProperty('position', 0.35);
    await user.click(screen.getByRole('button', { name: 'Stop' }));
    expect(await screen.findByText('Stopped.')).toBeDefined();
    const again = screen.getByRole('button', { name: 'Look again' });
    expect(document.activeElement).toBe(again);
    answer({ 'GET untangle': aView() });
    await user.click(again);
    expect(await within(await grid()).findByRole('row', { name: /186\.40/ })).toBeDefined();
    expect(screen.queryByText('Stopped.')).toBeNull();
    expect(asked('GET untangle')).toHaveLength(2);
  });

  test('says so where another answer stands meanwhile', async () => {
    const { user, answer } = showUntangle({ 'GET work': { work: [] } });
    await within(await grid()).findByRole('row', { name: /186\.40/ });
    answer({ 'GET untangle': never });
    await user.click(screen.getByRole('radio', { name: /meant so/ }));
    expect(await screen.findByText('Looking', {}, { timeout: 5_000 })).toBeDefined();
    await user.click(screen.getByRole('button', { name: 'Stop' }));
    expect(await screen.findByText('Stopped. What stands here answers another question.')).toBeDefined();
    expect(within(await grid()).getByRole('row', { name: /186\.40/ })).toBeDefined();
  });
});
