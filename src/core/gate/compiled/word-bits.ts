/**
 * Sets of words in 32 bits. Words share bits, so that one which is set says little; one which is not proves that the word
 * is not in the set (a filter after Bloom, 1970, with one hash).
 */
export function bitOf(word: number): number {
  return 1 << word; // the lowest five bits of the word decide
}

/** The set that every word is in. */
export const EVERY_WORD = -1;
