import { randomLcg, randomLogNormal } from 'd3';

/** Draws that are the same for the same seed, on every machine. */
export type Draw = {
  /** 0 ≤ x < 1 */
  next(): number;
  /** one of several, each as likely */
  pick<T>(of: readonly T[]): T;
  chance(probability: number): boolean;
  /** about 1, spread by sigma */
  spread(sigma: number): number;
};

export function drawFrom(seed: number): Draw {
  const next = randomLcg(seed);
  return {
    next,
    pick: (of) => of[Math.floor(next() * of.length)]!,
    chance: (probability) => next() < probability,
    spread: (sigma) => randomLogNormal.source(next)(0, sigma)(),
  };
}
