import { expect, test } from 'vitest';
import { letterOf } from './letters';

test.each([
  [0, 'A'],
  [25, 'Z'],
  [26, 'AA'],
  [51, 'AZ'],
  [52, 'BA'],
  [701, 'ZZ'],
  [702, 'AAA'],
])('tray %i is called %s', (index, letter) => {
  expect(letterOf(index)).toBe(letter);
});
