import { expect, test } from 'vitest';
import { counted, listed } from './counted';

test('what is counted stands in the singular for one, and numbers are grouped', () => {
  expect(counted(1, 'term')).toBe('1 term');
  expect(counted(0, 'term')).toBe('0 terms');
  expect(counted(12_345, 'entry', 'entries')).toBe('12,345 entries');
});

test('names are joined as in a sentence, and what is not named is counted', () => {
  expect(listed([])).toBe('');
  expect(listed(['ants'])).toBe('ants');
  expect(listed(['ants', 'bees', 'wasps'])).toBe('ants, bees and wasps');
  expect(listed(['ants'], 2)).toBe('ants and 1 more');
  expect(listed(['ants', 'bees'], 1_502)).toBe('ants, bees and 1,500 more');
});
