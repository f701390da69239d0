/** So many tries are free. */
const FREE = 3;
const FIRST_WAIT_S = 5;
const LONGEST_WAIT_S = 15 * 60;

/**
 * For how long nobody may try with an address after so many tries in vain, s: nothing at first, then twice as long each
 * time, up to a quarter of an hour.
 */
export function waitAfter(tries: number): number {
  if (tries < FREE) return 0;
  return Math.min(LONGEST_WAIT_S, FIRST_WAIT_S * 2 ** (tries - FREE));
}
