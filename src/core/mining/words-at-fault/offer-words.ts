import { stops, type NegativeText } from '../../gate';
import { negativesAround } from '../smallest-set/negatives-around';
import type { WordAtFault } from './judge-ngrams';

/** Sure enough to be offered, unless a person sets another level. */
export const OFFERED_FROM = 0.8;

/** Conversions that the ad groups of a word must have been due to bring, before it is judged at all. */
export const LEAST_EXPECTED = 1;

/** The most longer negatives around the protected terms that hold a word. */
const MOST_AROUND = 100;

/** A word at fault that can be stopped without shutting out anything that must stay open (rules 7.12, 7.14). */
export type Offer = {
  word: WordAtFault;
  /** the word as a phrase; or, where that would stop protected terms, longer ones around them */
  negatives: NegativeText[];
  /** the protected terms that are left open so */
  leavesOpen: string[];
};

/** A word at fault that is not offered, and what stands against it. */
export type Barred = {
  word: WordAtFault;
  by: 'brand word' | 'live keyword' | 'protected term';
  names: string[];
};

export type OfferQuestion = {
  /** judged, surest first */
  words: readonly WordAtFault[];
  /** 0..1 */
  level: number;
  /** the advertiser's own names, normalised */
  brandWords: readonly string[];
  /** texts of the live keywords, and of the protected terms, that a negative would stop */
  keywordsStoppedBy(negative: NegativeText): string[];
  protectedBy(negative: NegativeText): string[];
  /**
   * the terms that hold an n-gram and may be stopped around protected ones, and their clicks over all days that are kept:
   * without those of the campaigns where it pays
   */
  termsAround(ngram: string): { text: string; clicks: number }[];
  /** whether the platform takes a negative */
  mayStand(negative: NegativeText): boolean;
};

/**
 * Offers the words at fault that can be stopped (rules 7.12, 7.14). Of those that hold one another only the shortest count, for
 * its negative stops what holds it. A word that would stop protected terms is offered as the smallest set of longer
 * phrases and whole texts around them (rules 9.1), what is clicked most first.
 * @returns both surest first
 * @example offerWords({ words: [{ ngram: 'jobs', terms: 2, clicks: 90, conversions: 0, expected: 4, probability: 0.9 }], level: 0.8, brandWords: [], keywordsStoppedBy: () => [], protectedBy: () => [], termsAround: () => [], mayStand: () => true }).offered[0]?.negatives // [{ text: 'jobs', match: 'phrase' }]
 */
export function offerWords(question: OfferQuestion): { offered: Offer[]; barred: Barred[] } {
  const offered: Offer[] = [];
  const barred: Barred[] = [];
  for (const word of reaching(question)) {
    const whole: NegativeText = { text: word.ngram, match: 'phrase' };
    const brands = question.brandWords.filter((brand) => stops({ text: brand, match: 'phrase' }, word.ngram));
    const keywords = question.keywordsStoppedBy(whole);
    const mustStay = question.protectedBy(whole);
    const negatives = mustStay.length === 0 ? [whole] : longerNegatives(question, word.ngram, mustStay);
    if (brands.length > 0) barred.push({ word, by: 'brand word', names: brands });
    else if (keywords.length > 0) barred.push({ word, by: 'live keyword', names: keywords });
    else if (negatives.length === 0) barred.push({ word, by: 'protected term', names: mustStay });
    else offered.push({ word, negatives, leavesOpen: mustStay });
  }
  return { offered, barred };
}

function reaching({ words, level }: OfferQuestion): WordAtFault[] {
  return withoutParts(words, level).filter(
    ({ expected, probability }) => expected >= LEAST_EXPECTED && probability >= level,
  );
}

/** No live keyword holds the n-gram here, so none is stopped by what holds it. */
function longerNegatives(
  { termsAround, mayStand }: OfferQuestion,
  ngram: string,
  mustStay: readonly string[],
): NegativeText[] {
  const isOpen = new Set(mustStay);
  const unwanted = termsAround(ngram)
    .filter(({ text }) => !isOpen.has(text))
    .map(({ text, clicks }) => ({ text, weight: clicks }));
  return negativesAround({ ngram, unwanted, open: mustStay, limit: MOST_AROUND }).filter(mayStand);
}

/**
 * N-grams without those that hold a shorter one which reaches the level.
 * @example withoutParts([], 0.8) // []
 */
export function withoutParts<Word extends Pick<WordAtFault, 'ngram' | 'probability'>>(
  words: readonly Word[],
  level: number,
): Word[] {
  const sure = new Set(words.filter(({ probability }) => probability >= level).map(({ ngram }) => ngram));
  return words.filter(({ ngram }) => !partsOf(ngram).some((part) => sure.has(part)));
}

/** The shorter n-grams within an n-gram. */
function partsOf(ngram: string): string[] {
  const words = ngram.split(' ');
  const parts: string[] = [];
  for (let length = 1; length < words.length; length++)
    for (let at = 0; at + length <= words.length; at++) parts.push(words.slice(at, at + length).join(' '));
  return parts;
}
