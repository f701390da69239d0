import { expect, test } from 'vitest';
import type { EntriesHealth, EntryLine } from '@/contracts/lists';
import { arrange, toRows } from './sort-entries';

const entry = (text: string, over: Partial<EntryLine> = {}): EntryLine => ({
  ...{ text, match: 'broad', since: null, drafted: null, by: null, from: null, hurts: 0 },
  ...over,
});
const health = (clicks: number, over: Partial<EntriesHealth['entries'][string]> = {}) => ({
  stopped: {
    ...{ terms: 1, clicks, costMicros: clicks, returningTerms: 0, conversions: 0, unknown: 0, known: 1 },
  },
  ...{ coveredBy: null, covers: 0, missing: 0 },
  ...over,
});
const rows = toRows(
  [entry('meme'), entry('free', { hurts: 2 }), entry('jobs', { drafted: 'added' }), entry('film')],
  {
    entries: {
      'broad meme': health(5),
      'broad free': health(0, { coveredBy: '“a”' }),
      'broad film': health(9, { missing: 1 }),
    },
  },
);
const texts = (
  kind: Parameters<typeof arrange>[1]['kind'],
  by: Parameters<typeof arrange>[2]['by'] = 'text',
  isDown = false,
) => arrange(rows, { kind, text: '' }, { by, isDown }).map((row) => row.text);

test('sorted by a figure, what is unknown comes last both ways', () => {
  expect(texts('all', 'clicks', true)).toEqual(['film', 'meme', 'free', 'jobs']);
  expect(texts('all', 'clicks', false)).toEqual(['free', 'meme', 'film', 'jobs']);
});

test.each([
  ['hurting', ['free']],
  ['needless', ['free']],
  ['idle', ['free']],
  ['missing', ['film']],
  ['tray', ['jobs']],
  ['converting', []],
] as const)('%s are filtered', (kind, wanted) => {
  expect(texts(kind)).toEqual(wanted);
});

test('a text narrows, and an entry that goes with the tray is told from one that comes', () => {
  expect(arrange(rows, { kind: 'all', text: 'M' }, { by: 'text', isDown: false }).map((r) => r.text)).toEqual(
    ['film', 'meme'],
  );
  const both = toRows(
    [entry('free', { drafted: 'added' }), entry('free', { drafted: 'removed' })],
    undefined,
  );
  expect(new Set(both.map((row) => row.key)).size).toBe(2);
});
