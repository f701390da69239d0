import fc from 'fast-check';
import {
  MATCH_TYPES,
  type AccountShape,
  type NegativeText,
  type Place,
  type PlacedNegative,
} from './negative';

/** Generators for property tests: a small vocabulary, so that texts collide often. */
const WORDS = ['bee', 'hive', 'free', 'kit', 'a', 'b', "men's", 'café', '&'];

export const aText = (maxWords = 5) =>
  fc.array(fc.constantFrom(...WORDS), { minLength: 1, maxLength: maxWords }).map((w) => w.join(' '));

export const aNegative = (maxWords = 3): fc.Arbitrary<NegativeText> =>
  fc.record({
    text: fc.oneof({ weight: 20, arbitrary: aText(maxWords) }, fc.constantFrom('', '?!')),
    match: fc.constantFrom(...MATCH_TYPES),
  });

/** Ninety-six words; once they have integers in this order, the words of a few of them share bits of a set. */
export const MANY_WORDS = Array.from({ length: 96 }, (_, i) => `w${i}`);

/** A text of words that share two bits. */
export const aTextOfSharedBits = (maxWords = 4) =>
  fc
    .array(fc.constantFrom(0, 1, 32, 33, 64, 65), { minLength: 1, maxLength: maxWords })
    .map((words) => words.map((i) => MANY_WORDS[i]).join(' '));

const CAMPAIGNS = [
  { id: 'c1', adGroups: [{ id: 'g1' }, { id: 'g2' }] },
  { id: 'c2', adGroups: [{ id: 'g3' }] },
];
const PLACES: Place[] = [
  { kind: 'account', id: null },
  { kind: 'campaign', id: 'c1' },
  { kind: 'campaign', id: 'c2' },
  { kind: 'adGroup', id: 'g1' },
  { kind: 'adGroup', id: 'g3' },
  { kind: 'list', id: 'l1' },
  { kind: 'list', id: 'l2' },
];

/** A small account: two campaigns, three ad groups, two lists that hang anywhere, up to ten negatives. */
export function anAccount(): fc.Arbitrary<AccountShape> {
  const negatives = fc
    .array(fc.tuple(aNegative(), fc.constantFrom(...PLACES), fc.constantFrom('2025-01-01', '2026-01-01')), {
      maxLength: 10,
    })
    .map((all) =>
      all.map(([text, place, createdAt], i): PlacedNegative => ({ ...text, place, createdAt, id: `n${i}` })),
    );
  const hungOn = fc.oneof(fc.subarray(['c1', 'c2']), fc.constant('account' as const));
  return fc.record({ negatives, one: hungOn, two: hungOn }).map(({ negatives, one, two }) => ({
    campaigns: CAMPAIGNS,
    lists: [
      { id: 'l1', hungOn: one },
      { id: 'l2', hungOn: two },
    ],
    negatives,
  }));
}
