import { fitBetaBinomial } from '../../figures/evidence/beta-binomial';

/**
 * What was served, as columns: row r is a (text, ad group). Clicks and conversions are known; conversions are at most the
 * clicks.
 */
export type ServedColumns = {
  textOf: Uint32Array;
  adGroupOf: Uint32Array;
  clicks: Float64Array;
  conversions: Float64Array;
  /** conversions that the cost of the row must bring at its target; NaN without a target */
  needed: Float64Array;
};

/** The texts of a table with what they brought, and what their ad groups would have brought in their place. */
export type JudgedTexts = {
  /** NaN where no row speaks of the text */
  clicks: Float64Array;
  conversions: Float64Array;
  expected: Float64Array;
  /** NaN where no row has a target */
  needed: Float64Array;
};

const FEW = { adGroups: 5, strength: 100 };
const BOUNDS: [number, number] = [10, 10_000];

/** Conversion rates of ad groups, each drawn towards what all have in common: its share of its own clicks counts more the more it has. */
export type AdGroupRates = { mean: number; strength: number; rates: Float64Array };

/**
 * The conversion rate of each ad group, (mS + C) / (S + N), with m and S by maximum likelihood over the ad groups that
 * have a click, S within 10 and 10,000; of fewer than 5 ad groups S is 100 and m their common rate (rules 7.12).
 * @param clicks of each ad group, conversions of each, at most the clicks
 * @returns null where nothing converted: then nothing can be said
 * @example shrinkRates(Float64Array.of(100, 300), Float64Array.of(10, 10))?.rates // Float64Array.of(0.075, 0.0375)
 */
export function shrinkRates(clicks: Float64Array, conversions: Float64Array): AdGroupRates | null {
  const pairs = Array.from(clicks, (n, g) => ({ clicks: n, conversions: conversions[g]!, times: 1 })).filter(
    (pair) => pair.clicks > 0,
  );
  const [all, won] = [sum(clicks), sum(conversions)];
  if (won === 0) return null;
  const isFew = pairs.length < FEW.adGroups || won === all;
  const { mean, strength } = isFew
    ? { mean: won / all, strength: FEW.strength }
    : fitBetaBinomial(pairs, BOUNDS);
  const rates = clicks.map((n, g) => (mean * strength + conversions[g]!) / (strength + n));
  return { mean, strength, rates };
}

/**
 * Sums rows by text, beside what the ad groups of the rows would have brought.
 * @param texts how many texts the table has
 * @param rates conversion rate of each ad group
 * @example expectOfTexts(1, { textOf: Uint32Array.of(0), adGroupOf: Uint32Array.of(0), clicks: Float64Array.of(40), conversions: Float64Array.of(1), needed: Float64Array.of(NaN) }, Float64Array.of(0.05)).expected // Float64Array.of(2)
 */
export function expectOfTexts(texts: number, rows: ServedColumns, rates: Float64Array): JudgedTexts {
  const { textOf, adGroupOf, clicks, conversions, needed } = rows;
  const judged: JudgedTexts = {
    clicks: new Float64Array(texts).fill(NaN),
    conversions: new Float64Array(texts),
    expected: new Float64Array(texts),
    needed: new Float64Array(texts).fill(NaN),
  };
  for (let r = 0; r < textOf.length; r++) {
    const t = textOf[r]!;
    judged.clicks[t] = (judged.clicks[t]! || 0) + clicks[r]!;
    judged.conversions[t]! += conversions[r]!;
    judged.expected[t]! += clicks[r]! * rates[adGroupOf[r]!]!;
    const must = needed[r]!;
    if (!Number.isNaN(must)) judged.needed[t] = (judged.needed[t]! || 0) + must;
  }
  return judged;
}

function sum(values: Float64Array): number {
  let total = 0;
  for (const value of values) total += value;
  return total;
}
