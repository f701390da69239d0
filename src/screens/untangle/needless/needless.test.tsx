import { screen, waitFor } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { Change } from '@/core';
import type { MisspeltView } from '@/contracts/untangle';
import { none, place, remove, longer, showUntangle, inHand } from '../testing';

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
