import type { MatchType } from './negative';

/**
 * Whether chosen words stand next to each other.
 * @param positions from 0, ascending
 * @example standTogether([1, 2]) // true
 */
export function standTogether(positions: readonly number[]): boolean {
  return positions.every((position, i) => i === 0 || position === positions[i - 1]! + 1);
}

/**
 * The text of the negative that chosen words make; no word chosen means the whole term, and exact always does.
 * @param positions from 0, ascending; one beyond the last word counts for nothing
 * @example textOfChosen(['bee', 'hive', 'movie'], [2], 'phrase') // 'movie'
 */
export function textOfChosen(
  words: readonly string[],
  positions: readonly number[],
  match: MatchType,
): string {
  const chosen = positions.flatMap((position) => words[position] ?? []);
  return (chosen.length === 0 || match === 'exact' ? words : chosen).join(' ');
}
