import { expect, test } from 'vitest';
import type { Column } from './columns';
import { isPicked, pickedOf, type Selection } from './use-selection';

const column = (key: string, ...campaigns: number[]): Column => ({
  ...{ key, campaigns, label: key, group: null, isFolded: campaigns.length > 1 },
});
const columns = [column('a', 0), column('b', 1, 2), column('c', 3)];

test('a rectangle is the same whichever corner it was begun at', () => {
  const wanted = { lists: [1, 2], campaigns: [0, 1, 2] };
  expect(pickedOf({ from: [1, 0], to: [2, 1] }, columns, 5)).toEqual(wanted);
  expect(pickedOf({ from: [2, 1], to: [1, 0] }, columns, 5)).toEqual(wanted);
});

test('rows that are not there any more are left out, and a folded column stands for all its campaigns', () => {
  expect(pickedOf({ from: [1, 1], to: [9, 1] }, columns, 3)).toEqual({ lists: [1, 2], campaigns: [1, 2] });
  expect(pickedOf({ from: [0, 7], to: [0, 7] }, columns, 3).campaigns).toEqual([]);
});

test('a cell is told to be within', () => {
  const selection: Selection = { from: [2, 2], to: [1, 0] };
  expect(isPicked(selection, 1, 1)).toBe(true);
  expect(isPicked(selection, 0, 1)).toBe(false);
  expect(isPicked(selection, 2, 3)).toBe(false);
});
