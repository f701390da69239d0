/** Within what a rule acts by itself. */
export type Bounds = {
  /** changes that it may make on one day */
  changesADay: number;
  /** what the terms that it stops on one day may have cost in the days that it looked at, micro-units */
  costADayMicros: number;
  /** the least share of what it promised that must come, 0..1; else it stops itself */
  leastKept: number;
};

/** What acting on a finding takes: changes, and what the term cost in micro-units. */
export type Taken = { changes: number; costMicros: number };

/**
 * What of its findings a rule may act on today: in their order each that the rest of the day still holds.
 * @param done what it did today already
 * @example withinBounds([{ changes: 1, costMicros: 9 }, { changes: 1, costMicros: 4 }], { changesADay: 2, costADayMicros: 5, leastKept: 0 }, { changes: 0, costMicros: 0 }) // [{ changes: 1, costMicros: 4 }]
 */
export function withinBounds<T extends Taken>(
  found: readonly T[],
  { changesADay, costADayMicros }: Bounds,
  done: Taken,
): T[] {
  let { changes, costMicros } = done;
  return found.filter((one) => {
    if (changes + one.changes > changesADay || costMicros + one.costMicros > costADayMicros) return false;
    changes += one.changes;
    costMicros += one.costMicros;
    return true;
  });
}

/** Of fewer days nobody can tell whether a promise is kept. */
const LEAST_DAYS = 7;

/** What a rule's stops promised since they act, and what came; micro-units, over so many days with data. */
export type Kept = {
  promisedMicros: number;
  cameMicros: number;
  /** less than that comes in one case of twenty by chance alone */
  leastMicros: number;
  days: number;
};

/**
 * Whether less came than the least share of what a rule promised, and less than chance explains. A promise of nothing can not be
 * broken.
 * @example breaksPromise({ promisedMicros: 40, cameMicros: 19, leastMicros: 25, days: 7 }, 0.5) // true
 */
export function breaksPromise(
  { promisedMicros, cameMicros, leastMicros, days }: Kept,
  leastKept: number,
): boolean {
  const isTooLittle = cameMicros < leastKept * promisedMicros && cameMicros < leastMicros;
  return days >= LEAST_DAYS && promisedMicros > 0 && isTooLittle;
}
