import { expect, test } from 'vitest';
import { besideOf, rangeText, windowOf } from './days-of';

const account = {
  window: { from: '2026-10-20', to: '2026-11-18', days: 30 },
  dataDays: { from: '2026-08-24', to: '2026-11-20' },
  lagDays: 2,
};
const window = { from: '2026-10-20', to: '2026-11-18' };

test.each([
  [null, window],
  ['7', { from: '2026-11-12', to: '2026-11-18' }],
  ['2026-09-01~2026-09-30', { from: '2026-09-01', to: '2026-09-30' }],
  ['nonsense', window],
])('days %s', (days, wanted) => expect(windowOf(days, account)).toEqual(wanted));

test('without data there is no window', () => {
  expect(windowOf('7', { ...account, window: null })).toBeNull();
});

test.each([
  ['before', { from: '2026-09-20', to: '2026-10-19' }],
  ['year', { from: '2025-10-20', to: '2025-11-18' }],
  ['2026-09-01~2026-09-03', { from: '2026-09-01', to: '2026-09-03' }],
  ['30', null],
  [null, null],
])('beside %s', (beside, wanted) => expect(besideOf(beside, window)).toEqual(wanted));

test('the same days last year of 29 February end in February', () => {
  expect(besideOf('year', { from: '2024-02-01', to: '2024-02-29' })).toEqual({
    ...{ from: '2023-02-01', to: '2023-02-28' },
  });
});

test.each([
  ['2026-09-01', '2026-09-30', '2026-09-01~2026-09-30'],
  ['2026-09-30', '2026-09-01', undefined],
  ['', '2026-09-01', undefined],
  ['2024-01-01', '2026-09-01', undefined],
])('from %s to %s', (from, to, text) => expect(rangeText(from, to)).toBe(text));
