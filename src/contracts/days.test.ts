import { expect, test } from 'vitest';
import { parseDays, sayDays } from './days';

test.each([
  ['30', 30],
  ['366', 366],
  ['2026-10-20~2026-11-18', { from: '2026-10-20', to: '2026-11-18' }],
  ['2026-11-18~2026-11-18', { from: '2026-11-18', to: '2026-11-18' }],
])('%s is read and written', (text, days) => {
  expect(parseDays(text)).toEqual(days);
  expect(sayDays(days)).toBe(text);
});

test.each([
  '',
  '0',
  '367',
  '-1',
  '2026-11-18',
  '2026-11-18~2026-11-17',
  '2026-02-30~2026-03-02',
  '2024-01-01~2026-01-01',
])('“%s” names no days', (text) => expect(parseDays(text)).toBeUndefined());
