/** Where mixing begins. */
const START = 0x9e3779b9;

/** Mixes one more integer into what was mixed before (the finaliser of MurmurHash3, A. Appleby 2011). */
export function mix(before: number, part: number): number {
  let h = Math.imul(before ^ part, 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return h ^ (h >>> 16);
}

/** What a query is mixed to on a day: the same for the same seed, day and query. */
export const mixDay = (seed: number, dayNumber: number, queryId: number): number =>
  mix(mix(mix(START, seed), dayNumber), queryId);

/** What was mixed, as a number from 0 to before 1. */
export const asShare = (mixed: number): number => (mixed >>> 0) / 4_294_967_296;

/** An integer that stands for a text (FNV-1a, 32 bits). */
export function hashOf(text: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return h >>> 0;
}
