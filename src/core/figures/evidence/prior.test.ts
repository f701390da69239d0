import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { fitPrior } from './prior';

type Term = { clicks: number; conversions: number };

const terms = (count: number, clicks: number, conversions: (i: number) => number): Term[] =>
  Array.from({ length: count }, (_, i) => ({ clicks, conversions: conversions(i) }));

/** log Γ(x + k) − log Γ(x) for whole k, word for word; fractions by the rule of Stirling beyond 40. */
function risen(x: number, k: number): number {
  if (Number.isInteger(k)) {
    let sum = 0;
    for (let j = 0; j < k; j++) sum += Math.log(x + j);
    return sum;
  }
  return lnGamma(x + k) - lnGamma(x);
}

function lnGamma(x: number): number {
  let below = 0;
  let at = x;
  for (; at < 40; at++) below += Math.log(at);
  const series = 1 / (12 * at) - 1 / (360 * at ** 3) + 1 / (1260 * at ** 5);
  return (at - 0.5) * Math.log(at) - at + 0.5 * Math.log(2 * Math.PI) + series - below;
}

/** The beta–binomial likelihood of rules 7.3, less what does not depend on the prior. */
function likelihood(of: readonly Term[], alpha: number, beta: number): number {
  let sum = 0;
  for (const { clicks: n, conversions: c } of of)
    sum += risen(alpha, c) + risen(beta, n - c) - risen(alpha + beta, n);
  return sum;
}

/** The best of all means and strengths, by looking through them three times, finer each time. */
function bestByLooking(of: readonly Term[]): number {
  let best = { height: -Infinity, logit: -3, log: 4 };
  for (const width of [1, 0.15, 0.02]) {
    const { logit, log } = best;
    for (let i = -12; i <= 12; i++)
      for (let j = -12; j <= 12; j++) {
        const mean = 1 / (1 + Math.exp(-(logit + (i * width) / 2)));
        const strength = Math.min(5_000, Math.max(2, Math.exp(log + (j * width) / 2.5)));
        const height = likelihood(of, mean * strength, (1 - mean) * strength);
        if (height > best.height) best = { height, logit: logit + (i * width) / 2, log: Math.log(strength) };
      }
  }
  return best.height;
}

describe('the prior', () => {
  test('is at least as likely as any other that looking finds', () => {
    const term = fc
      .tuple(fc.integer({ min: 1, max: 60 }), fc.double({ min: 0, max: 1, noNaN: true }), fc.boolean())
      .map(([clicks, share, whole]) => ({
        clicks,
        conversions: whole ? Math.floor(share ** 4 * clicks) : Math.round(share ** 4 * clicks * 4) / 4,
      }));
    fc.assert(
      fc.property(fc.array(term, { minLength: 20, maxLength: 40 }), (of) => {
        const [won, all] = [sum(of, 'conversions'), sum(of, 'clicks')];
        fc.pre(won > 0 && won < all);
        const { alpha, beta } = fitPrior(of)!;
        expect(alpha + beta).toBeGreaterThan(2 - 1e-9);
        expect(alpha + beta).toBeLessThan(5_000 + 1e-6);
        expect(likelihood(of, alpha, beta)).toBeGreaterThan(bestByLooking(of) - 1e-7);
      }),
      { numRuns: 60 },
    );
  });

  test('finds the higher top where there are two', () => {
    const of = [
      ...terms(14, 1, () => 0),
      ...[6, 14, 4, 12, 33].flatMap((clicks) => terms(1, clicks, () => 0)),
      ...terms(1, 1, () => 0.75),
    ];
    const { alpha, beta } = fitPrior(of)!;
    expect(likelihood(of, alpha, beta)).toBeGreaterThan(bestByLooking(of) - 1e-7);
    expect(alpha + beta).toBeLessThan(3);
  });

  test('finds the strength that terms were drawn with, also where most have one click', () => {
    // 1,000 terms of one click and 1 of 100 would say nothing alone; terms of 20 clicks with 0, 1, 2 … tell.
    const of = [
      ...terms(5_000, 1, (i) => (i % 40 === 0 ? 1 : 0)),
      ...terms(400, 20, (i) => [0, 0, 0, 0, 1, 0, 0, 2][i % 8]!),
    ];
    const { alpha, beta } = fitPrior(of)!;
    expect(alpha / (alpha + beta)).toBeCloseTo(0.0216, 3);
    expect(alpha + beta).toBeGreaterThan(10);
    expect(alpha + beta).toBeLessThan(100);
  });

  test.each([
    {
      name: 'few terms: their common rate',
      of: terms(19, 10, (i) => (i % 2) * 2),
      mean: 18 / 190,
      strength: 50,
    },
    { name: 'no conversion at all', of: terms(30, 100, () => 0), mean: 1 / 3_002, strength: 50 },
    { name: 'no conversion, few terms', of: terms(2, 4, () => 0), mean: 1 / 10, strength: 50 },
    { name: 'as alike as can be', of: terms(30, 100, () => 5), mean: 0.05, strength: 5_000 },
    { name: 'as unlike as can be', of: terms(30, 100, (i) => (i % 2) * 100), mean: 0.5, strength: 2 },
    { name: 'every click converted', of: terms(30, 2, () => 2), mean: 61 / 62, strength: 50 },
    { name: 'conversions beyond the clicks', of: terms(20, 1, () => 3), mean: 21 / 22, strength: 50 },
  ])('$name', ({ of, mean, strength }) => {
    const { alpha, beta } = fitPrior(of)!;
    expect(alpha / (alpha + beta)).toBeCloseTo(mean, 3);
    expect(alpha + beta).toBeCloseTo(strength, 6);
  });

  test('what has no click or an unknown figure says nothing', () => {
    const silent = [
      { clicks: 0, conversions: 3 },
      { clicks: null, conversions: 3 },
      { clicks: 9, conversions: null },
    ];
    expect(fitPrior(silent)).toBeNull();
    expect(fitPrior([...silent, { clicks: 4, conversions: 9 }])).toEqual({ alpha: 50, beta: 0 });
  });

  test('the order of the terms does not matter', () => {
    const of = [...terms(30, 7, (i) => i % 3), ...terms(30, 40, (i) => i % 2)];
    const [one, two] = [fitPrior(of)!, fitPrior(of.toReversed())!];
    expect(two.alpha).toBeCloseTo(one.alpha, 6);
    expect(two.beta).toBeCloseTo(one.beta, 6);
  });
});

const sum = (of: readonly Term[], figure: keyof Term) => of.reduce((all, term) => all + term[figure], 0);
