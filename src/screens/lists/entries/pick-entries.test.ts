import { expect, test } from 'vitest';
import type { EntriesHealth, EntryLine } from '@/contracts/list-entries';
import { pickEntries, toRows, type EntryKind } from './pick-entries';

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
const texts = (kind: EntryKind) => pickEntries(rows, { kind, text: '' }).map((row) => row.text);

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
  expect(pickEntries(rows, { kind: 'all', text: 'M' }).map((r) => r.text)).toEqual(['meme', 'film']);
  const both = toRows(
    [entry('free', { drafted: 'added' }), entry('free', { drafted: 'removed' })],
    undefined,
  );
  expect(new Set(both.map((row) => row.key)).size).toBe(2);
});
