/** What time it is: the system's, or another where the past is told. */
export type Clock = { now(): Date };

export const systemClock: Clock = { now: () => new Date() };

/** A clock that stands. */
export function clockAt(moment: Date): Clock {
  return { now: () => moment };
}
