import cities from 'city-timezones';
import countries from 'i18n-iso-countries';
import { normalise } from '@/core';

/** Languages in which countries are known by name. */
const LANGUAGES = ['en', 'de', 'fr', 'es', 'it', 'nl'];
/** Smaller towns share their names with too many other things. */
const LEAST_PEOPLE = 100_000;
/** A single word of fewer letters is not taken for a location. */
const LEAST_LETTERS = 4;

let known: readonly string[] | undefined;

/**
 * Names of locations as a query would hold them (rules 7.10): countries, cities of at least 100,000 people, their
 * regions, and the words that people of the account tagged as a location.
 * @param own texts marked by people
 */
export function locationNames(own: readonly string[]): readonly string[] {
  known ??= gather();
  return own.length === 0 ? known : [...known, ...own];
}

function gather(): string[] {
  const large = cities.cityMapping.filter((city) => city.pop >= LEAST_PEOPLE);
  const names = [
    ...LANGUAGES.flatMap((language) => Object.values(countries.getNames(language, { select: 'all' })).flat()),
    ...large.flatMap(({ city, city_ascii, province }) => [city, city_ascii, province]),
  ];
  return [...new Set(names.map(normalise))].filter(
    (name) => name.includes(' ') || name.length >= LEAST_LETTERS,
  );
}
