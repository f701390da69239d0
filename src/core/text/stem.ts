import pluralize from 'pluralize';
import { stemmer } from 'stemmer';

/**
 * What forms of one word have in common: plural, -ing and -ed fold together (rules 7.6).
 * @param word normalised
 * @example stemOf('hives') === stemOf('hiving') // true
 * Source: Porter 1980, Program 14:130, after irregular plurals are brought to their singular.
 */
export function stemOf(word: string): string {
  return stemmer(pluralize.singular(word));
}
