import { AT, WIDTH } from './figures-of-facts';
import type { SumCondition } from './rule';

/** What sums must come to at least, somewhat less so that no rounding matters: what does not reach it need not be looked at. */
export function leastOf(conditions: readonly SumCondition[]): Float64Array {
  const least = new Float64Array(WIDTH).fill(-Infinity);
  for (const condition of conditions) {
    if (!('value' in condition) || condition.is !== 'at least') continue;
    const { value } = condition;
    least[AT[condition.of]] = Math.max(least[AT[condition.of]]!, value - 1e-6 * Math.max(1, Math.abs(value)));
  }
  return least;
}

/** The most that sums over any days of a term can come to: all its facts, without what late figures take away again. */
export function mostOf({ figures }: { figures: Float64Array }) {
  const most = new Float64Array(WIDTH);
  return {
    turnTo(begin: number, end: number) {
      most.fill(0);
      for (let f = begin; f < end; f++)
        for (let i = 0; i < WIDTH; i++) if (figures[WIDTH * f + i]! > 0) most[i]! += figures[WIDTH * f + i]!;
    },
    reaches(least: Float64Array): boolean {
      for (let i = 0; i < WIDTH; i++) if (most[i]! < least[i]!) return false;
      return true;
    },
  };
}
