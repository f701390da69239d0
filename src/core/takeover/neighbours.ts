import { stemOf, words } from '../text';

/** A word that more than this share of the terms holds says nothing of what a query is about. */
const COMMON = 0.05;

/**
 * Tells whether a term is like what a negative stops (rules 14.1): they share two words, by their stems, or the one that the
 * negative has; and one of them is not common.
 * @param texts all terms, by which common words are told
 * @example makeNeighbours(['wax sheets', ...others])('wax', 'bees wax sheets') // true
 */
export function makeNeighbours(texts: Iterable<string>): (negative: string, term: string) => boolean {
  const holding = new Map<string, number>();
  let count = 0;
  for (const text of texts) {
    count += 1;
    for (const stem of stemsOf(text)) holding.set(stem, (holding.get(stem) ?? 0) + 1);
  }
  const isCommon = (stem: string) => (holding.get(stem) ?? 0) > COMMON * count;
  return (negative, term) => {
    const own = stemsOf(negative);
    const shared = [...stemsOf(term)].filter((stem) => own.has(stem));
    return shared.length >= Math.min(2, own.size) && shared.some((stem) => !isCommon(stem));
  };
}

const stemsOf = (text: string): Set<string> => new Set(words(text).map(stemOf));
