import { expect, test } from 'vitest';
import { formatConversions, formatCount, formatDay, formatDays, formatShare } from './format';
import { counted } from '@/core';

test('figures are written one way, and what is unknown is a dash', () => {
  expect(formatCount(1204)).toBe('1,204');
  expect(formatConversions(1.5)).toBe('1.5');
  expect(formatConversions(null)).toBe('–');
  expect(formatShare(0.071)).toBe('7 %');
});

test('days name their month, and their year where it is asked for or changes', () => {
  expect(formatDay('2026-10-02')).toBe('2 Oct');
  expect(formatDays({ from: '2026-10-22', to: '2026-11-20' })).toBe('22 Oct – 20 Nov');
  expect(formatDays({ from: '2025-12-22', to: '2026-01-20' }, true)).toBe('22 Dec 2025 – 20 Jan 2026');
});

test('one is one', () => {
  expect(counted(1, 'term')).toBe('1 term');
  expect(counted(2, 'query', 'queries')).toBe('2 queries');
});
