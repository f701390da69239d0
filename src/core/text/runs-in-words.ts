import { stemOf } from './stem';

/**
 * Where a run of words stands among others, in any forms of its words.
 * @param words of a text, normalised
 * @param run its words, normalised, with spaces between
 * @returns positions from 0, next to each other; none where the run does not stand there
 * @example positionsOfRun(['old', 'bee', 'hives'], 'bee hive') // [1, 2]
 */
export function positionsOfRun(words: readonly string[], run: string): number[] {
  const wanted = run.split(' ').filter((word) => word !== '');
  if (wanted.length === 0) return [];
  const stems = wanted.map(stemOf);
  const at = words.findIndex((_, start) =>
    stems.every((stem, i) => {
      const word = words[start + i];
      return word !== undefined && (word === wanted[i] || stemOf(word) === stem);
    }),
  );
  return at < 0 ? [] : stems.map((_, i) => at + i);
}
