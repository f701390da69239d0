import type { Figures } from '../figures';
import { fitBetaBinomial, type CountedPair } from './beta-binomial';

/** A Beta(α, β) distribution of conversion rates: what is known of a term before its own clicks are looked at. */
export type Prior = { alpha: number; beta: number };

const STRENGTH = { bounds: [2, 5_000] as [number, number], withFewTerms: 50, fewTerms: 20 };

/**
 * Fits the prior of an account to its terms by maximum likelihood (rules 7.3).
 * @param terms those without a click, or with unknown conversions, say nothing and are passed over; conversions beyond
 * the clicks count as that many
 * @returns null when no term has a click
 * @example fitPrior([{ clicks: 100, conversions: 4 }]) // { alpha: 2, beta: 48 }
 */
export function fitPrior(terms: Iterable<Pick<Figures, 'clicks' | 'conversions'>>): Prior | null {
  const pairs = countPairs(terms);
  let [count, clicks, conversions] = [0, 0, 0];
  for (const { clicks: n, conversions: c, times } of pairs) {
    count += times;
    clicks += n * times;
    conversions += c * times;
  }
  if (count === 0) return null;
  if (conversions === 0) return priorOf(1 / (clicks + 2), STRENGTH.withFewTerms);
  if (count < STRENGTH.fewTerms) return priorOf(conversions / clicks, STRENGTH.withFewTerms);
  if (conversions === clicks) return priorOf(1 - 1 / (clicks + 2), STRENGTH.withFewTerms);
  const { mean, strength } = fitBetaBinomial(pairs, STRENGTH.bounds);
  return priorOf(mean, strength);
}

const priorOf = (mean: number, strength: number): Prior => ({
  alpha: mean * strength,
  beta: (1 - mean) * strength,
});

/** Terms of the same clicks and conversions are one pair: a million terms have some hundreds of them. */
function countPairs(terms: Iterable<Pick<Figures, 'clicks' | 'conversions'>>): CountedPair[] {
  const byClicks = new Map<number, Map<number, CountedPair>>();
  const pairs: CountedPair[] = [];
  for (const { clicks, conversions } of terms) {
    if (clicks === null || clicks < 1 || conversions === null) continue;
    const converted = Math.min(conversions, clicks);
    let same = byClicks.get(clicks);
    if (!same) byClicks.set(clicks, (same = new Map()));
    const pair = same.get(converted);
    if (pair) pair.times += 1;
    else {
      const first = { clicks, conversions: converted, times: 1 };
      same.set(converted, first);
      pairs.push(first);
    }
  }
  return pairs;
}
