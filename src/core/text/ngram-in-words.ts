import { stemOf } from './stem';

/**
 * Where an n-gram stands among others, in any forms of its words.
 * @param words of a text, normalised
 * @param n-gram its words, normalised, with spaces between
 * @returns positions from 0, next to each other; none where the n-gram does not stand there
 * @example positionsOfNgram(['old', 'bee', 'hives'], 'bee hive') // [1, 2]
 */
export function positionsOfNgram(words: readonly string[], ngram: string): number[] {
  const wanted = ngram.split(' ').filter((word) => word !== '');
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
