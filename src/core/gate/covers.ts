import { words } from '../text';
import { matchWords, standsIn } from './match';
import type { MatchType, NegativeText } from './negative';

/**
 * Whether every possible query that `b` stops is also stopped by `a` (rules 3), places aside.
 * Texts without a word cover nothing and are covered by nothing.
 * @example covers({ text: 'free', match: 'phrase' }, { text: 'free plans', match: 'exact' }) // true
 */
export function covers(a: NegativeText, b: NegativeText): boolean {
  const [wordsA, wordsB] = [words(a.text), words(b.text)];
  if (wordsA.length === 0 || wordsB.length === 0) return false;
  switch (a.match) {
    case 'broad':
      return wordsA.every((word) => wordsB.includes(word));
    case 'phrase':
      if (b.match === 'broad') return wordsA.length === 1 && wordsB.includes(wordsA[0]!);
      return standsIn(wordsA, wordsB);
    case 'exact':
      return b.match === 'exact' && matchWords('exact', wordsA, wordsB);
  }
}

/**
 * The same where it is known that `a` matches the text of `b` as a query: then only the match types decide.
 * @example coversWhatItStops({ match: 'phrase', isOneWord: false }, { match: 'broad' }) // false
 */
export function coversWhatItStops(
  a: { match: MatchType; isOneWord: boolean },
  b: { match: MatchType },
): boolean {
  switch (a.match) {
    case 'broad':
      return true;
    case 'phrase':
      return b.match !== 'broad' || a.isOneWord;
    case 'exact':
      return b.match === 'exact';
  }
}
