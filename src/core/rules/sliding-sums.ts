import { AT, WIDTH } from './figures-of-facts';
import type { Sums } from './meets';

export type SlidingSums = ReturnType<typeof slidingSums>;

/** Sums over facts that come and go. A figure of which no fact is left is not known; one of which only zeros are left is zero. */
export function slidingSums({ figures, count: facts }: { figures: Float64Array; count: number }) {
  const inside = new Uint8Array(facts);
  const totals = new Float64Array(WIDTH);
  const [known, others] = [new Int32Array(WIDTH), new Int32Array(WIDTH)]; // facts that give it; those that are not zero
  let count = 0;

  function add(f: number, sign: 1 | -1) {
    count += sign;
    for (let i = 0; i < WIDTH; i++) {
      const value = figures[WIDTH * f + i]!;
      if (Number.isNaN(value)) continue;
      known[i]! += sign;
      if (value === 0) continue;
      others[i]! += sign;
      totals[i] = others[i] === 0 ? 0 : totals[i]! + sign * value;
    }
  }

  return {
    /** Lets go of everything, before the facts of another term come. */
    clear(begin: number, end: number) {
      totals.fill(0);
      known.fill(0);
      others.fill(0);
      inside.fill(0, begin, end);
      count = 0;
    },
    enter(f: number) {
      inside[f] = 1;
      add(f, 1);
    },
    /** Does nothing for a fact that is not inside. */
    leave(f: number) {
      if (inside[f] === 0) return;
      inside[f] = 0;
      add(f, -1);
    },
    holds: (f: number) => inside[f] === 1,
    /** how many there are now */
    facts: () => count,
    sums(): Sums {
      const of = (at: number) => (known[at]! > 0 ? totals[at]! : NaN);
      return {
        clicks: of(AT.clicks),
        impressions: of(AT.impressions),
        costMicros: of(AT.costMicros),
        conversions: of(AT.conversions),
        valueMicros: of(AT.valueMicros),
      };
    },
  };
}
