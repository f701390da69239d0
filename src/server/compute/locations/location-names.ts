import { gazetteer } from './gazetteer';

/** A single word of fewer letters is not taken for a location. */
const LEAST_LETTERS = 4;

let known: readonly string[] | undefined;

/**
 * Names of locations as a query would hold them (rules 7.10): countries, cities of at least 100,000 people, their
 * regions, and the words that people of the account tagged as a location.
 * @param own texts marked by people
 */
export function locationNames(own: readonly string[]): readonly string[] {
  known ??= [...gazetteer().byName.keys()].filter(
    (name) => name.includes(' ') || name.length >= LEAST_LETTERS,
  );
  return own.length === 0 ? known : [...known, ...own];
}
