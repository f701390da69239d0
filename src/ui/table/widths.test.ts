import { describe, expect, test } from 'vitest';
import * as fc from 'fast-check';
import { toClipboard } from './cells';
import { widthsOf } from './widths';

const columns = [
  { id: 'term', name: 'term', px: 244, share: 3 },
  { id: 'served', name: 'served', px: 56, share: 2, yields: true },
  { id: 'clicks', name: 'clicks', px: 36 },
];
const ids = (room: number, sizes: Record<string, number> = {}) =>
  widthsOf(columns, sizes, room, true).shown.map(({ id }) => id);

describe('the widths of columns', () => {
  test('a column that yields is left out where it has no room', () => {
    expect(ids(500)).toEqual(['term', 'served', 'clicks']);
    expect(ids(350)).toEqual(['term', 'clicks']);
  });

  test('while the room is not known, and where a person has sized it, it stays', () => {
    expect(ids(0)).toEqual(['term', 'served', 'clicks']);
    expect(ids(350, { served: 60 })).toEqual(['term', 'served', 'clicks']);
  });

  test('what grows shares what is left, what was sized keeps its size', () => {
    expect(widthsOf(columns, { term: 300 }, 800, false).template).toBe('300px minmax(56px,2fr) 36px');
    expect(widthsOf(columns.slice(2), {}, 800, false).template).toBe('36px 1fr');
  });

  test('what has grown as far as it may leaves the rest to the others, and at last behind the last column', () => {
    const bounded = [{ ...columns[0]!, most: 400 }, { ...columns[1]!, most: 300 }, columns[2]!];
    expect(widthsOf(bounded, {}, 500, false).template).toBe('minmax(244px,3fr) minmax(56px,2fr) 36px');
    expect(widthsOf(bounded, {}, 720, false).template).toBe('400px minmax(56px,2fr) 36px');
    expect(widthsOf(bounded, {}, 2_000, false).template).toBe('400px 300px 36px 1fr');
  });

  test('the first column and every one that does not yield are always there, and fit or scroll', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2_600 }), (room) => {
        const { shown, least } = widthsOf(columns, {}, room, true);
        expect(shown.map(({ id }) => id)).toEqual(expect.arrayContaining(['term', 'clicks']));
        if (shown.length === 3) expect(least).toBeLessThanOrEqual(room);
      }),
    );
  });
});

test('a text on the clipboard stays in its cell', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.array(fc.oneof(fc.string(), fc.double(), fc.constant(null)), { minLength: 2, maxLength: 2 }),
        { minLength: 1 },
      ),
      (rows) => {
        const lines = toClipboard({ header: [], rows }).split('\n');
        expect(lines).toHaveLength(rows.length);
        for (const line of lines) expect(line.split('\t')).toHaveLength(2);
      },
    ),
  );
});
