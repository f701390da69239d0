import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { fitFactorSpread } from './factor-spread';

describe('the spread of factors', () => {
  const word = fc.record({
    expected: fc.double({ min: 0.01, max: 40, noNaN: true }),
    conversions: fc.oneof(fc.nat(20), fc.double({ min: 0, max: 9, noNaN: true })),
  });
  /** Γ(a + c) / Γ(a) · (a/(a + E))^a · (1/(a + E))^c, with the integral of the digamma as its logarithm. */
  const likelihood = (of: readonly { expected: number; conversions: number }[], a: number) =>
    of.reduce((sum, { expected: e, conversions: c }) => {
      let risen = 0;
      const whole = Math.floor(c);
      for (let j = 0; j < whole; j++) risen += Math.log(a + (c - whole) + j);
      const rest = c - whole > 0 ? lnGammaRatio(a, c - whole) : 0;
      return sum + risen + rest + a * Math.log(a / (a + e)) - c * Math.log(a + e);
    }, 0);
  /** log Γ(x + f) − log Γ(x), by going up to where Stirling's rule is exact. */
  function lnGammaRatio(x: number, f: number): number {
    let sum = 0;
    let at = x;
    for (; at < 60; at++) sum += Math.log(at) - Math.log(at + f);
    const stirling = (z: number) => (z - 0.5) * Math.log(z) - z + 1 / (12 * z) - 1 / (360 * z ** 3);
    return sum + stirling(at + f) - stirling(at);
  }

  test('is at least as likely as any other that looking finds, within 0.1 and 100', () => {
    fc.assert(
      fc.property(fc.array(word, { minLength: 1, maxLength: 30 }), (of) => {
        const a = fitFactorSpread(of);
        expect(a).toBeGreaterThanOrEqual(0.1 - 1e-12);
        expect(a).toBeLessThanOrEqual(100 + 1e-9);
        let best = -Infinity;
        for (let i = 0; i <= 120; i++) best = Math.max(best, likelihood(of, 0.1 * 1_000 ** (i / 120)));
        expect(likelihood(of, a)).toBeGreaterThan(best - 1e-6);
      }),
      { numRuns: 60 },
    );
  });

  test('of two maxima the likelier one is taken', () => {
    const two = [
      { expected: 3.370850219105092, conversions: 4 },
      { expected: 1.8485226998947746, conversions: 0 },
    ];
    const reached = likelihood(two, fitFactorSpread(two));
    for (const a of [0.1, 1, 5, 20, 100]) expect(reached).toBeGreaterThan(likelihood(two, a) - 1e-9);
  });

  test('words that bring what is expected of them are alike; words that bring all or nothing are not', () => {
    const words = (of: (i: number) => number) =>
      Array.from({ length: 60 }, (_, i) => ({ expected: 20, conversions: of(i) }));
    expect(fitFactorSpread(words(() => 20))).toBeCloseTo(100, 6);
    expect(fitFactorSpread(words((i) => (i % 2) * 40))).toBeLessThan(0.6);
  });
});
