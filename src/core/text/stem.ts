import pluralize from 'pluralize';
import { LRUCache } from 'lru-cache';
import { stemmer } from 'stemmer';

/** Stems of the words that were asked for last: an account holds the same words over and over. */
const known = new LRUCache<string, string>({ max: 50_000 });

/**
 * What forms of one word have in common: plural, -ing and -ed fold together (rules 7.6).
 * @param word normalised
 * @example stemOf('hives') === stemOf('hiving') // true
 * Source: Porter 1980, Program 14:130, after irregular plurals are brought to their singular.
 */
export function stemOf(word: string): string {
  let stem = known.get(word);
  if (stem === undefined) known.set(word, (stem = stemmer(pluralize.singular(word))));
  return stem;
}
