import { describe, expect, test } from 'vitest';
import { addMarks, ALL_MARKED, countMarks, isMarked, NO_MARKS, toggleMark, toSelection } from './marks';

describe('marks', () => {
  test('some rows one by one, each off again', () => {
    const two = toggleMark(toggleMark(NO_MARKS, 7), 9);
    expect(countMarks(two, 100)).toBe(2);
    expect(isMarked(toggleMark(two, 7), 7)).toBe(false);
    expect(toSelection(two, {})).toEqual({ kind: 'terms', ids: [7, 9], filters: {} });
  });

  test('all that the filters show, but those taken off', () => {
    const most = toggleMark(ALL_MARKED, 7);
    expect([isMarked(most, 7), isMarked(most, 8), countMarks(most, 100)]).toEqual([false, true, 99]);
    expect(toSelection(most, { returns: 'none' })).toEqual({
      ...{ kind: 'filter', filters: { returns: 'none' }, except: [7] },
    });
    expect(countMarks(addMarks(most, [7]), 100)).toBe(100);
  });

  test('a stretch of rows is added to what is marked', () => {
    expect(countMarks(addMarks(toggleMark(NO_MARKS, 1), [1, 2, 3]), 10)).toBe(3);
  });
});
