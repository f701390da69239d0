import { createNgramTable } from '../mining';
import { collectPostings } from './postings';
import type { StemmedTexts } from './stemmed-texts';

/** A run of neighbouring stems, with the ideas that hold it. */
export type Run = {
  /** words */
  length: number;
  /** ascending; not to be changed */
  ideas: Uint32Array;
  /** where it first stands in the words of each of them */
  places: Uint32Array;
};

/**
 * Finds the runs of 1 to `longest` stems that at least `least` ideas hold, the shorter ones first. A run is followed up only where it and the
 * one that begins a word later are frequent, for a longer run is no more frequent than its parts.
 */
export function findRuns(
  { starts, stemIds, stemCount }: StemmedTexts,
  longest: number,
  least: number,
): Run[] {
  const all: Run[] = [];
  /** the run of the last length that begins at a place; −1 for a rare one */
  let beginsAt = Int32Array.from(stemIds);
  for (let length = 1; length <= longest; length++) {
    let size = stemCount;
    if (length > 1) ({ beginsAt, size } = lengthened(beginsAt, starts, stemIds, length));
    const postings = collectPostings(size);
    for (let idea = 0; idea + 1 < starts.length; idea++)
      for (let at = starts[idea]!; at + length <= starts[idea + 1]!; at++)
        if (beginsAt[at]! >= 0) postings.note(beginsAt[at]!, idea, at);
    const { counts, ideasOf, placesOf } = postings.finish();
    const before = all.length;
    for (let run = 0; run < size; run++)
      if (counts[run]! >= least) all.push({ length, ideas: ideasOf(run), places: placesOf(run) });
    if (all.length === before) break;
    for (let at = 0; at < beginsAt.length; at++) if (counts[beginsAt[at]!]! < least) beginsAt[at] = -1;
  }
  return all;
}

/** The runs that are one word longer, where both of their parts are frequent. */
function lengthened(before: Int32Array, starts: Uint32Array, stemIds: Uint32Array, length: number) {
  const table = createNgramTable();
  const beginsAt = new Int32Array(before.length).fill(-1);
  for (let idea = 0; idea + 1 < starts.length; idea++)
    for (let at = starts[idea]!; at + length <= starts[idea + 1]!; at++)
      if (before[at]! >= 0 && before[at + 1]! >= 0)
        beginsAt[at] = table.intern(before[at]!, stemIds[at + length - 1]!);
  return { beginsAt, size: table.size };
}
