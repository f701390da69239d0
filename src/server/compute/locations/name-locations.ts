import { findNamed, normalise, words, type NamedRun } from '@/core';
import type { NameKind } from '@/contracts/locations';
import { derivedByKey } from '../derived';
import { gazetteer, type Gazetteer, type Location } from './gazetteer';

/** What people said of locations: those that are served, and names that are none in this account. */
export type SaidOfLocations = {
  served: readonly string[];
  none: readonly string[];
  tagged: readonly string[];
};

/** A name of a location that is not served, or perhaps one: it is an ordinary word as well. */
type NamedLocation = NamedRun & { kind: NameKind };

/** An ordinary word of fewer letters is not even asked about. */
const LEAST_LETTERS = 4;

/** @returns whether a text names a location that somebody can serve */
export const isLocationName = (text: string): boolean => gazetteer().byName.has(normalise(text));

/**
 * Names in a text of locations that are not served (rules 16.7). While nobody said what is served, none is told.
 * @param text normalised
 */
type LocationNamer = (text: string) => NamedLocation[];

export const locationNamer: (said: SaidOfLocations) => LocationNamer = (said) => namerOf(gazetteer(), said);

const namerOf = derivedByKey(
  (said: SaidOfLocations) => JSON.stringify(said),
  (known: Gazetteer, { served, none, tagged }: SaidOfLocations): LocationNamer => {
    if (served.length === 0) return () => [];
    const { byName, longest, isOrdinary } = known;
    const places = served.flatMap((text) => byName.get(normalise(text)) ?? []);
    const servedNames = new Set(served.map(normalise));
    const noName = new Set(none.map(normalise));
    const own = new Set(tagged.map(normalise));
    const kindOf = (name: string): NameKind | undefined => {
      if (servedNames.has(name) || noName.has(name)) return undefined;
      if (own.has(name)) return 'not served';
      const locations = byName.get(name)!;
      if (locations.some((one) => places.some((place) => contains(place, one) || contains(one, place))))
        return undefined;
      if (name.includes(' ') || !isOrdinary(name)) return 'not served';
      return name.length < LEAST_LETTERS ? undefined : 'perhaps';
    };
    const kinds = new Map<string, NameKind | undefined>();
    const isName = (run: string) => byName.has(run) || own.has(run);
    return (text) =>
      findNamed(words(text), isName, Math.max(longest, 4)).flatMap((run) => {
        if (!kinds.has(run.name)) kinds.set(run.name, kindOf(run.name));
        const kind = kinds.get(run.name);
        return kind === undefined ? [] : { ...run, kind };
      });
  },
  4,
);

/** Whether a location lies within another, or is the same. */
function contains(outer: Location, inner: Location): boolean {
  if (outer.country !== inner.country) return false;
  if (outer.region === null) return true;
  if (outer.region !== inner.region) return false;
  return outer.city === null || outer.city === inner.city;
}
