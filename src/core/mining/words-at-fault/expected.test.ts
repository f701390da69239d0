import { describe, expect, test } from 'vitest';
import { shrinkRates } from './expected';

describe('the rates of ad groups', () => {
  test.each([
    {
      name: 'few ad groups: strength 100 about their common rate',
      n: [100, 300],
      c: [10, 10],
      expected: [0.075, 0.0375],
    },
    { name: 'one without a click has the common rate', n: [0, 400], c: [0, 20], expected: [0.05, 0.05] },
    { name: 'every click converted', n: [10, 10], c: [10, 10], expected: [1, 1] },
  ])('$name', ({ n, c, expected }) => {
    const { rates } = shrinkRates(Float64Array.from(n), Float64Array.from(c))!;
    expected.forEach((rate, g) => expect(rates[g]).toBeCloseTo(rate, 12));
  });

  test('many ad groups that differ keep their own rates, and those that are alike share one', () => {
    const n = Float64Array.from({ length: 12 }, () => 2_000);
    const unlike = shrinkRates(
      n,
      n.map((_, g) => (g % 2 ? 200 : 20)),
    )!;
    expect(unlike.rates[0]).toBeCloseTo(0.01, 2);
    expect(unlike.rates[1]).toBeCloseTo(0.1, 2);
    const alike = shrinkRates(
      n,
      n.map((_, g) => 100 + (g % 2)),
    )!;
    expect(alike.strength).toBeCloseTo(10_000, 3);
    expect(alike.rates[0]).toBeCloseTo(alike.rates[1]!, 3);
  });
});
