import { describe, expect, test } from 'vitest';
import { bidThatPays, conversionsThatSettle, probabilityMissesTarget } from './index';

const prior = { alpha: 2, beta: 48 };

describe('the bid that pays', () => {
  test.each([
    { clicks: 0, conversions: 0, expected: 720_000 }, // 18.00 × 2 / 50
    { clicks: 50, conversions: 0, expected: 360_000 }, // 18.00 × 2 / 100
    { clicks: 50, conversions: 3, expected: 900_000 }, // 18.00 × 5 / 100
    { clicks: 1, conversions: 4, expected: 1_050_000 }, // conversions beyond the clicks count as one
  ])('after $clicks clicks and $conversions conversions is $expected', ({ expected, ...seen }) => {
    expect(bidThatPays({ ...prior, ...seen }, { by: 'CPA', micros: 18_000_000 })).toBe(expected);
  });

  test('by ACoS the worth of a conversion is its share of the mean value', () => {
    const target = { by: 'ACoS', fraction: 0.3, meanValueMicros: 60_000_000 } as const;
    expect(bidThatPays({ ...prior, clicks: 0, conversions: 0 }, target)).toBe(720_000);
    expect(bidThatPays({ ...prior, clicks: 0, conversions: 0 }, { ...target, fraction: null })).toBeNull();
  });

  test('is rounded down to the smallest unit of the currency', () => {
    const target = { by: 'CPA', micros: 17_999_999 } as const;
    expect(bidThatPays({ ...prior, clicks: 0, conversions: 0 }, target)).toBe(710_000);
    expect(bidThatPays({ ...prior, clicks: 30, conversions: 0 }, target, 1_000_000)).toBe(0);
  });
});

test.each([0, 10, 58, 200, 1_000])('with %i clicks one conversion more settles nothing', (clicks) => {
  const question = { alpha: 1, beta: 1, breakEvenCvr: 0.05, clicks };
  const most = conversionsThatSettle(question);
  const misses = (conversions: number) => probabilityMissesTarget({ ...question, conversions });
  if (most === null) expect(misses(0)).toBeLessThan(0.95);
  else {
    expect(misses(most)).toBeGreaterThanOrEqual(0.95);
    expect(misses(most + 1)).toBeLessThan(0.95);
  }
});
