import { stemOf, words } from '../text';

/** A word that more than this share of the terms holds, and more than so many, says nothing of what a query is about. */
const COMMON = { share: 0.05, terms: 20 };

/**
 * Tells whether a term is like what a negative stops (rules 14.1): they share two words, by their stems, or the one that the
 * negative has; and one of them is neither common nor a word of what is sold, for those every term may hold.
 * @param texts all terms, by which common words are told
 * @param sold texts of live keywords
 * @example makeNeighbours([], ['bee hive'])('free bee hive', 'free wax') // false
 */
export function makeNeighbours(
  texts: Iterable<string>,
  sold: Iterable<string>,
): (negative: string, term: string) => boolean {
  const own = new Set<string>();
  for (const text of sold) for (const stem of stemsOf(text)) own.add(stem);
  const holding = new Map<string, number>();
  let count = 0;
  for (const text of texts) {
    count += 1;
    for (const stem of stemsOf(text)) holding.set(stem, (holding.get(stem) ?? 0) + 1);
  }
  const isCommon = (stem: string) =>
    own.has(stem) || (holding.get(stem) ?? 0) > Math.max(COMMON.terms, COMMON.share * count);
  return (negative, term) => {
    const stopped = stemsOf(negative);
    const shared = [...stemsOf(term)].filter((stem) => stopped.has(stem));
    return shared.length >= Math.min(2, stopped.size) && shared.some((stem) => !isCommon(stem));
  };
}

const stemsOf = (text: string): Set<string> => new Set(words(text).map(stemOf));
