import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { breakEvenCvr, clicksThatSettle, probabilityMissesTarget } from './evidence';

/** The binomial sum that equals the incomplete beta function for whole parameters (Abramowitz & Stegun 26.5.24). */
function byBinomials(x: number, a: number, b: number): number {
  const n = a + b - 1;
  let sum = 0;
  for (let k = a; k <= n; k++) sum += Math.exp(logChoose(n, k) + k * Math.log(x) + (n - k) * Math.log1p(-x));
  return sum;
}

function logChoose(n: number, k: number): number {
  let sum = 0;
  for (let i = 1; i <= k; i++) sum += Math.log(n - k + i) - Math.log(i);
  return sum;
}

describe('the probability that a term misses its target', () => {
  test('agrees with the binomial sum, to 1e-9', () => {
    fc.assert(
      fc.property(
        fc.record({
          ...{ alpha: fc.integer({ min: 1, max: 8 }), beta: fc.integer({ min: 1, max: 60 }) },
          ...{ clicks: fc.integer({ min: 0, max: 400 }), share: fc.double({ min: 0, max: 1, noNaN: true }) },
          breakEvenCvr: fc.double({ min: 0.001, max: 0.6, noNaN: true }),
        }),
        ({ alpha, beta, clicks, share, breakEvenCvr: rate }) => {
          const conversions = Math.floor(share * Math.min(clicks, 20));
          const p = probabilityMissesTarget({ clicks, conversions, alpha, beta, breakEvenCvr: rate });
          expect(
            Math.abs(p - byBinomials(rate, alpha + conversions, beta + clicks - conversions)),
          ).toBeLessThan(1e-9);
        },
      ),
      { numRuns: 1_000 },
    );
  });

  // Closed forms: Beta(a, 1) has the distribution x^a, Beta(1, b) has 1 − (1 − x)^b.
  test.each([
    [{ clicks: 0, conversions: 0, alpha: 2.5, beta: 1, breakEvenCvr: 0.3 }, 0.3 ** 2.5],
    [{ clicks: 100, conversions: 0, alpha: 1, beta: 20.5, breakEvenCvr: 0.02 }, 1 - 0.98 ** 120.5],
    [{ clicks: 5, conversions: 9, alpha: 1, beta: 1, breakEvenCvr: 0.5 }, 0.5 ** 6],
    [{ clicks: 3, conversions: 0, alpha: 0, beta: 50, breakEvenCvr: 0.01 }, 1],
    [{ clicks: 3, conversions: 3, alpha: 50, beta: 0, breakEvenCvr: 0.99 }, 0],
    [{ clicks: 3, conversions: 0, alpha: 2, beta: 8, breakEvenCvr: 0 }, 0],
    [{ clicks: 3, conversions: 0, alpha: 2, beta: 8, breakEvenCvr: 1 }, 1],
  ])('%o is %d', (question, expected) => {
    expect(probabilityMissesTarget(question)).toBeCloseTo(expected, 10);
  });

  test('rises with clicks that bring nothing, falls with conversions', () => {
    const at = (clicks: number, conversions: number) =>
      probabilityMissesTarget({ clicks, conversions, alpha: 1.4, beta: 40, breakEvenCvr: 0.04 });
    for (let n = 0; n < 200; n += 10) {
      expect(at(n + 10, 0)).toBeGreaterThan(at(n, 0));
      expect(at(n + 10, 2)).toBeLessThan(at(n + 10, 1));
    }
  });

  test('what makes no sense is refused', () => {
    const sound = { clicks: 1, conversions: 0, alpha: 1, beta: 1, breakEvenCvr: 0.1 };
    expect(() => probabilityMissesTarget({ ...sound, clicks: -1 })).toThrow(RangeError);
    expect(() => probabilityMissesTarget({ ...sound, conversions: NaN })).toThrow(RangeError);
    expect(() => probabilityMissesTarget({ ...sound, alpha: 0, beta: 0 })).toThrow(RangeError);
  });
});

describe('the clicks that settle it', () => {
  test('are the first at which the level is reached', () => {
    expect(clicksThatSettle({ alpha: 1, beta: 1, breakEvenCvr: 0.05 })).toBe(58); // 1 − 0.95^(n+1) ≥ 0.95
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 20, noNaN: true }),
        fc.double({ min: 1, max: 500, noNaN: true }),
        fc.double({ min: 0.002, max: 0.9, noNaN: true }),
        (alpha, beta, rate) => {
          const prior = { alpha, beta, breakEvenCvr: rate };
          const n = clicksThatSettle(prior)!;
          expect(probabilityMissesTarget({ ...prior, clicks: n, conversions: 0 })).toBeGreaterThanOrEqual(
            0.95,
          );
          if (n > 0)
            expect(probabilityMissesTarget({ ...prior, clicks: n - 1, conversions: 0 })).toBeLessThan(0.95);
        },
      ),
      { numRuns: 1_000 },
    );
  });

  test('are 0 when the prior says so already, and none when nothing could', () => {
    expect(clicksThatSettle({ alpha: 1, beta: 1, breakEvenCvr: 1 })).toBe(0);
    expect(clicksThatSettle({ alpha: 0, beta: 50, breakEvenCvr: 0.01 })).toBe(0);
    expect(clicksThatSettle({ alpha: 1, beta: 1, breakEvenCvr: 0 })).toBeNull();
    expect(clicksThatSettle({ alpha: 1, beta: 1, breakEvenCvr: 0.05, level: 0.5 })).toBe(13);
  });
});

describe('the break-even rate', () => {
  test.each([
    [900_000, { by: 'CPA', micros: 18_000_000 }, 0.05],
    [900_000, { by: 'CPA', micros: null }, null],
    [null, { by: 'CPA', micros: 18_000_000 }, null],
    [30_000_000, { by: 'CPA', micros: 18_000_000 }, 1],
    [600_000, { by: 'ACoS', fraction: 0.25, meanValueMicros: 40_000_000 }, 0.06],
    [600_000, { by: 'ACoS', fraction: 0.25, meanValueMicros: null }, null],
    [600_000, { by: 'ACoS', fraction: null, meanValueMicros: 40_000_000 }, null],
    [600_000, { by: 'ACoS', fraction: 0.25, meanValueMicros: 0 }, null],
  ] as const)('of a click at %d under %o is %d', (cpc, target, expected) => {
    const rate = breakEvenCvr(cpc, target);
    if (expected === null) expect(rate).toBeNull();
    else expect(rate).toBeCloseTo(expected, 12);
  });
});
