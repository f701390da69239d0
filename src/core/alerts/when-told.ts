/** When somebody is told of alerts; times of day in minutes since midnight, 0 to 1,439, by the clock of whoever is told. */
export type Telling = {
  /** nobody is told from one time of day to another, over midnight where the end is the earlier one; null: at any time */
  quiet: { from: number; to: number } | null;
  /** once a day, at this time, all together; null: at once */
  digestAt: number | null;
};

const DAY = 24 * 60;

/**
 * How long an alert waits before somebody is told of it.
 * @param minute the time of day at which it came up
 * @returns minutes, less than two days
 * @example minutesUntilTold(23 * 60, { quiet: { from: 22 * 60, to: 7 * 60 }, digestAt: null }) // 480
 */
export function minutesUntilTold(minute: number, { quiet, digestAt }: Telling): number {
  const untilDigest = digestAt === null ? 0 : (digestAt - minute + DAY) % DAY;
  const told = (minute + untilDigest) % DAY;
  return untilDigest + (quiet ? minutesOfQuiet(told, quiet) : 0);
}

/** How many minutes of quiet are left at a time of day; 0 where there is none. */
function minutesOfQuiet(minute: number, { from, to }: { from: number; to: number }): number {
  const length = (to - from + DAY) % DAY;
  const since = (minute - from + DAY) % DAY;
  return since < length ? length - since : 0;
}

/** Seconds after a delivery failed until it is tried again, the first try first: about a day and a half in all. */
const WAITS = [60, 5 * 60, 30 * 60, 2 * 3_600, 8 * 3_600, 24 * 3_600];

/**
 * How long a delivery waits that failed.
 * @param tries how often it was tried, 1 or more
 * @returns seconds; null where it is given up
 * @example secondsUntilNextTry(1) // 60
 */
export const secondsUntilNextTry = (tries: number): number | null => WAITS[tries - 1] ?? null;
