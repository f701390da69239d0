import { describe, expect, test } from 'vitest';
import { formatRegion, parseRegion } from '@/contracts/sift';
import { bandsOf } from './bands';
import { regionOf } from './evidence-plot';

const dot = (clicks: number, conversions: number, terms = 1, sure = 0) => ({
  ...{ clicks, conversions, terms, sure, costMicros: 1_000_000 * clicks },
});

describe('the plot as a table', () => {
  test('puts every term into one band, and says which surely miss', () => {
    const bands = bandsOf({ dots: [dot(1, 0, 5), dot(3, 0), dot(40, 0, 2, 1), dot(60, 2)] });
    expect(bands.map((b) => [b.clicks, b.terms, b.without, b.sure])).toEqual([
      [[1, 1], 5, 5, 0],
      [[2, 3], 1, 1, 0],
      [[32, 63], 3, 2, 1],
    ]);
  });
});

describe('a region', () => {
  test('goes into the address and comes back', () => {
    const region = regionOf(9.2, 40.9, -0.3, 1.04);
    expect(region).toEqual({ clicks: [10, 40], conversions: [0, 1] });
    expect(parseRegion(formatRegion(region))).toEqual(region);
  });

  test('narrower than a click still has its ends in order', () => {
    expect(regionOf(9.2, 9.7, 0, 0)).toEqual({ clicks: [9, 10], conversions: [0, 0] });
  });

  test.each(['', '1-2', '5-1,0-1', 'a-b,c-d', '1-2,0-0.123'])('“%s” is none', (text) => {
    expect(parseRegion(text)).toBeUndefined();
  });
});
