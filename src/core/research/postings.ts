import { grown } from '../columns';

/** Which ideas hold which things, and where: noted one after another, then read by the thing. */
export type Postings = {
  /** how many ideas hold each thing */
  counts: Uint32Array;
  /** the ideas that hold a thing, ascending; not to be changed */
  ideasOf(thing: number): Uint32Array;
  /** where the thing first stands in each of them */
  placesOf(thing: number): Uint32Array;
  /** The first place of a thing where it is the same at all of them; undefined where it is not. */
  onlyPlace(thing: number, isSame: (one: number, other: number) => boolean): number | undefined;
};

/** Collects postings of things 0 … size − 1. Ideas are noted in ascending order. */
export function collectPostings(size: number) {
  const counts = new Uint32Array(size);
  const lastIdea = new Int32Array(size).fill(-1);
  let [things, ideas, places] = [
    new Uint32Array(1 << 14),
    new Uint32Array(1 << 14),
    new Uint32Array(1 << 14),
  ];
  let count = 0;
  return {
    note(thing: number, idea: number, place: number) {
      if (lastIdea[thing] === idea) return; // it stands there twice
      lastIdea[thing] = idea;
      counts[thing]! += 1;
      if (count === things.length) {
        [things, ideas, places] = [
          grown(things, 2 * count),
          grown(ideas, 2 * count),
          grown(places, 2 * count),
        ];
      }
      things[count] = thing;
      ideas[count] = idea;
      places[count++] = place;
    },
    finish(): Postings {
      const starts = new Uint32Array(size + 1);
      for (let thing = 0; thing < size; thing++) starts[thing + 1] = starts[thing]! + counts[thing]!;
      const next = starts.slice();
      const [byThing, placeByThing] = [new Uint32Array(count), new Uint32Array(count)];
      for (let i = 0; i < count; i++) {
        const at = next[things[i]!]!++;
        byThing[at] = ideas[i]!;
        placeByThing[at] = places[i]!;
      }
      return {
        counts,
        ideasOf: (thing) => byThing.subarray(starts[thing], starts[thing + 1]),
        placesOf: (thing) => placeByThing.subarray(starts[thing], starts[thing + 1]),
        onlyPlace(thing, isSame) {
          const first = placeByThing[starts[thing]!]!;
          for (let i = starts[thing]! + 1; i < starts[thing + 1]!; i++)
            if (!isSame(first, placeByThing[i]!)) return undefined;
          return first;
        },
      };
    },
  };
}
