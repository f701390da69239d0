import fc from 'fast-check';
import { MATCH_TYPES, type NegativeText } from './negative';

/** Generators for property tests: a small vocabulary, so that texts collide often. */
const WORDS = ['bee', 'hive', 'free', 'kit', 'a', 'b', "men's", 'café', '&'];

export const aText = (maxWords = 5) =>
  fc.array(fc.constantFrom(...WORDS), { minLength: 1, maxLength: maxWords }).map((w) => w.join(' '));

export const aNegative = (maxWords = 3): fc.Arbitrary<NegativeText> =>
  fc.record({
    text: fc.oneof({ weight: 20, arbitrary: aText(maxWords) }, fc.constantFrom('', '?!')),
    match: fc.constantFrom(...MATCH_TYPES),
  });
