import { expect, test } from 'vitest';
import { newsOf } from './news';

const change = (id: number, by: string) => ({ id, by, said: `Stop “${id}”` });

test('what others put in the tray is told, what I or they did before is not', () => {
  const before = [change(1, 'Tobias')];
  expect(newsOf(before, [change(1, 'Tobias'), change(2, 'Maren'), change(3, 'Tobias')], 'Maren')).toEqual([
    'Tobias: Stop “3”.',
  ]);
});

test('many at once are told as a number', () => {
  const now = [1, 2, 3].map((id) => change(id, 'Ilse'));
  expect(newsOf([], now, 'Maren')).toEqual(['Ilse put 3 changes in the tray.']);
});
