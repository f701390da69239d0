import { describe, expect, test } from 'vitest';
import type { Reading } from '@/core';
import { countStates, formatSize, isDecided, stripOf, timeLeft, withForm, withRole } from './reading-state';

const columns = [
  { index: 0, header: 'Term', role: 'search term', because: '', sample: '' },
  { index: 1, header: 'Words', role: null, because: '', sample: '' },
] satisfies Reading['columns'];

describe('decisions', () => {
  test('a role that is given to one column is taken from the other', () => {
    expect(withRole({}, columns, 1, 'search term').roles).toEqual({ 0: null, 1: 'search term' });
    expect(withRole({ dayOrder: 'day first' }, columns, 0, null)).toEqual({
      dayOrder: 'day first',
      roles: { 0: null },
    });
  });

  test('another separator forgets what was said of columns; another encoding does not', () => {
    const said = { roles: { 0: null }, dayOrder: 'day first' } as const;
    expect(withForm(said, { separator: ';' })).toEqual({ dayOrder: 'day first', separator: ';' });
    expect(withForm(said, { encoding: 'utf-8' })).toMatchObject({ roles: { 0: null }, encoding: 'utf-8' });
  });

  test.each([
    [{}, false],
    [{ dayOrder: undefined }, false],
    [{ dayOrder: 'day first' as const }, true],
  ])('%j: decided %j', (decisions, decided) => expect(isDecided(decisions)).toBe(decided));
});

describe('the strip of days', () => {
  test('tells apart what is there, what is new, what will be replaced and what is missing', () => {
    const strip = stripOf(['2026-10-01', '2026-10-02', '2026-10-04'], { '2026-10-04': 7, '2026-10-05': 2 });
    expect(strip.map(({ day, state }) => `${day.slice(8)} ${state}`)).toEqual([
      '01 there',
      '02 there',
      '03 gap',
      '04 both',
      '05 new',
    ]);
    expect(countStates(strip)).toEqual({ there: 2, new: 1, both: 1, gap: 1 });
  });

  test('shows the newest days where there are many, over the change of the clock too', () => {
    const strip = stripOf(['2020-01-01', '2026-11-01'], {});
    expect(strip).toHaveLength(120);
    expect(strip.at(-1)).toEqual({ day: '2026-11-01', state: 'there', rows: 0 });
    expect(new Set(strip.map((d) => d.day)).size).toBe(120);
  });

  test('is empty without days', () => expect(stripOf([], {})).toEqual([]));
});

test.each([
  [0, 100, 10, '10 s left'],
  [0, 100_000, 100, '17 min left'],
  [5, null, 10, ''],
  [5, 100, null, ''],
  [100, 100, 10, ''],
])('%j of %j at %j a second: %s', (read, total, rate, left) => {
  expect(timeLeft(read, total, rate)).toBe(left);
});

test.each([
  [12, '12 B'],
  [2_100, '2.1 kB'],
  [2_100_000, '2.1 MB'],
  [210_000_000, '210 MB'],
])('%j bytes are %s', (bytes, text) => expect(formatSize(bytes)).toBe(text));
