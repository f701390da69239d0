import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { makeNeighbours } from './neighbours';

const SHOP = [
  ...Array.from({ length: 60 }, (_, i) => `bee hive size${i}`),
  ...['bees wax sheets', 'wax melter', 'free hive plans', 'smoker fuel', 'queen cage'],
];
const isLike = makeNeighbours(SHOP, ['queen cage']);

describe('neighbours of a negative', () => {
  test.each([
    ['wax', 'wax sheets', true], // its only word
    ['wax', 'waxing', true], // by its stem
    ['free hive plans', 'hive plans pdf', true], // two words, one of them rare
    ['free hive plans', 'smoker plans', false], // one of three
    ['bee hive', 'bee hive kit', false], // all shared words are common
    ['bee hive movie', 'bee hive kit', false],
    ['bee', 'bee hive kit', false],
    ['jobs', 'bee hive kit', false],
    ['queen cage toy', 'queen cage black', false], // what is sold is in both
    ['queen cage toy', 'queen toy', true],
  ])('%s and %s', (negative, term, is) => {
    expect(isLike(negative, term)).toBe(is);
  });

  test('nothing is like a negative without words, and nothing goes wrong on an empty account', () => {
    expect(isLike('', 'wax')).toBe(false);
    expect(makeNeighbours([], [])('wax', 'wax sheets')).toBe(true);
  });

  test('the order of words does not matter', () => {
    const text = fc.array(fc.constantFrom('bee', 'hive', 'wax', 'plans', 'free', 'jobs'), { maxLength: 5 });
    fc.assert(
      fc.property(text, text, (negative, term) => {
        const said = (list: readonly string[]) => list.join(' ');
        const forwards = isLike(said(negative), said(term));
        expect(isLike(said(negative.toReversed()), said(term.toReversed()))).toBe(forwards);
      }),
    );
  });
});
