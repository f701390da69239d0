import digamma from '@stdlib/math-base-special-digamma';
import gammaln from '@stdlib/math-base-special-gammaln';
import trigamma from '@stdlib/math-base-special-trigamma';
import { NOISE } from '../../figures/evidence/beta-binomial';

/** What a word's ad groups would have brought to it (above 0), and what it brought. */
export type WordCount = { expected: number; conversions: number };

const BOUNDS = { least: 0.1, most: 100 };

/**
 * How alike the factors of words are: the a of a Gamma(a, a) distribution of factors (mean 1) under which the
 * conversions of the words are the likeliest, within 0.1 and 100 (rules 7.12). The maximum of the negative binomial
 * likelihood, by Newton's method on the logarithm of a.
 * @returns the upper bound where there is no word: nothing says that words differ
 * Source: DuMouchel 1999, The American Statistician 53:177.
 * @example fitFactorSpread([]) // 100
 */
export function fitFactorSpread(words: readonly WordCount[]): number {
  if (words.length === 0) return BOUNDS.most;
  // A few words may have two maxima, one of them at a bound.
  const climbs = [0, Math.log(BOUNDS.least), Math.log(BOUNDS.most)].map((from) => climb(words, from));
  return Math.exp(climbs.reduce((best, one) => (one.height > best.height ? one : best)).at);
}

/** The maximum that Newton's method comes to. */
function climb(words: readonly WordCount[], from: number): { at: number; height: number } {
  const [least, most] = [Math.log(BOUNDS.least), Math.log(BOUNDS.most)];
  let at = from;
  let height = logLikelihood(words, at);
  for (let round = 0; round < 100; round++) {
    const { slope, bend } = slopeAt(words, at);
    const step = Math.max(-2, Math.min(2, slope / Math.abs(bend || 1)));
    let [size, next] = [1, at];
    for (; size > 1e-9; size /= 2) {
      next = Math.max(least, Math.min(most, at + size * step));
      const reached = logLikelihood(words, next);
      if (reached < height - NOISE * Math.abs(height)) continue;
      height = reached;
      break;
    }
    if (size <= 1e-9) break;
    const moved = Math.abs(next - at);
    at = next;
    if (moved < 1e-11) break;
  }
  return { at, height };
}

function logLikelihood(words: readonly WordCount[], at: number): number {
  const a = Math.exp(at);
  const ofA = gammaln(a);
  let sum = 0;
  for (const { expected, conversions } of words) {
    const won = conversions === 0 ? 0 : gammaln(a + conversions) - ofA;
    sum += won + a * at - (a + conversions) * Math.log(a + expected);
  }
  return sum;
}

/** First and second derivative of the log-likelihood by the logarithm of a. */
function slopeAt(words: readonly WordCount[], at: number) {
  const a = Math.exp(at);
  const [one, two] = [digamma(a), trigamma(a)];
  let [first, second] = [0, 0];
  for (const { expected, conversions } of words) {
    const all = a + expected;
    if (conversions > 0) {
      first += digamma(a + conversions) - one;
      second += trigamma(a + conversions) - two;
    }
    first += at - Math.log(all) + (expected - conversions) / all;
    second += 1 / a - 1 / all - (expected - conversions) / all ** 2;
  }
  return { slope: a * first, bend: a ** 2 * second + a * first };
}
