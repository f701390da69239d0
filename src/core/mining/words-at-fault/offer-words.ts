import type { WordAtFault } from './judge-ngrams';

/** Sure enough to be offered, unless a person sets another level. */
export const OFFERED_FROM = 0.8;

/** Conversions that the ad groups of a word must have been due to bring, before it is judged at all. */
export const LEAST_EXPECTED = 1;

/**
 * Sorts out the n-grams that reach the level (rules 7.12): of those that hold one another only the shortest are wanted,
 * for its negative stops what holds it. Whether the negative would hurt anything is the caller's to ask.
 * @param words judged
 * @param level 0..1
 * @returns surest first
 * @example wordsToOffer([{ ngram: 'jobs', terms: 2, clicks: 90, conversions: 0, expected: 4, probability: 0.9 }], 0.8).length // 1
 */
export function wordsToOffer(words: readonly WordAtFault[], level: number): WordAtFault[] {
  return withoutParts(words, level).filter(
    ({ expected, probability }) => expected >= LEAST_EXPECTED && probability >= level,
  );
}

/**
 * N-grams without those that hold a shorter one which reaches the level.
 * @example withoutParts([], 0.8) // []
 */
export function withoutParts(words: readonly WordAtFault[], level: number): WordAtFault[] {
  const reaching = new Set(words.filter(({ probability }) => probability >= level).map(({ ngram }) => ngram));
  return words.filter(({ ngram }) => !partsOf(ngram).some((part) => reaching.has(part)));
}

/** The shorter n-grams within an n-gram. */
function partsOf(ngram: string): string[] {
  const words = ngram.split(' ');
  const parts: string[] = [];
  for (let length = 1; length < words.length; length++)
    for (let at = 0; at + length <= words.length; at++) parts.push(words.slice(at, at + length).join(' '));
  return parts;
}
