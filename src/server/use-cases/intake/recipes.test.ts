import { describe, expect, test } from 'vitest';
import { columnsKey, decisionsFor, toRecipe } from './recipes';

const HEADERS = ['Typed words', 'Cost', 'When'];
const DECISIONS = {
  roles: { 0: 'search term', 2: null },
  decimalMarks: { 1: ',' },
  dayOrder: 'day first',
  headerLine: 4,
  period: { from: '2026-10-01', to: '2026-10-31' },
} as const;

describe('a recipe', () => {
  test('keeps roles and marks by header, and leaves out what is of one file only', () => {
    expect(toRecipe(DECISIONS, HEADERS)).toEqual({
      dayOrder: 'day first',
      roles: { 'typed words': 'search term', when: null },
      decimalMarks: { cost: ',' },
    });
  });

  test('is used for columns in another order', () => {
    const decisions = decisionsFor({ decisions: toRecipe(DECISIONS, HEADERS) }, [
      'WHEN',
      'Typed words ',
      'Cost',
    ]);
    expect(decisions).toEqual({
      dayOrder: 'day first',
      roles: { 0: null, 1: 'search term' },
      decimalMarks: { 2: ',' },
    });
  });

  test('without decisions about columns has none', () => {
    expect(decisionsFor({ decisions: { encoding: 'utf-8' } }, HEADERS)).toEqual({ encoding: 'utf-8' });
  });
});

test('columns are the same in any order and case', () => {
  expect(columnsKey(['Cost', ' day'])).toEqual(columnsKey(['DAY', 'cost ']));
  expect(columnsKey(['Cost', 'Day'])).not.toEqual(columnsKey(['Cost']));
});
