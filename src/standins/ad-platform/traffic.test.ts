import { randomLcg, randomPoisson } from 'd3';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Auction } from './auction';
import { isSurelyUnseen, makeDay } from './traffic';

const auctionOf = (id: number, over: { fit?: number; bidMicros?: number } = {}): Auction => ({
  query: {
    ...{ id, text: `bee ${id}`, daily: 400, ctr: 0.2, cvr: 0.1, valueMicros: 40_000_000, unreported: false },
    ...{ cpcMicros: 500_000, means: [], automaticIn: [] },
  },
  bidders: [{ adGroupId: 'g1', keywordId: 'k1', fit: 1, bidMicros: 700_000, weight: 1, hash: 1, ...over }],
});
const AUCTIONS = [auctionOf(1), auctionOf(2)];
const november = Array.from({ length: 28 }, (_, i) => `2026-11-${String(i + 1).padStart(2, '0')}`);

describe('what a place is worth', () => {
  const sumOf = (auction: Auction) => {
    const all = november.flatMap((day) => makeDay([auction], day, 7));
    const impressions = all.reduce((sum, d) => sum + d.impressions, 0);
    const clicks = all.reduce((sum, d) => sum + d.clicks, 0);
    return { impressions, cpc: all.reduce((sum, d) => sum + d.costMicros, 0) / clicks };
  };
  const whole = sumOf(auctionOf(1));

  test('a bid below what clicks cost wins less, and pays less', () => {
    const { impressions, cpc } = sumOf(auctionOf(1, { bidMicros: 250_000 }));
    expect(impressions / whole.impressions).toBeCloseTo(0.5, 1);
    expect(cpc / whole.cpc).toBeCloseTo(0.5, 1);
  });

  test('what fits less is shown less', () => {
    const { impressions } = sumOf(auctionOf(1, { fit: 0.45 }));
    expect(impressions / whole.impressions).toBeCloseTo(Math.sqrt(0.45 / 0.75), 1);
  });
});

describe('a day of traffic', () => {
  test('is the same for the same seed and day, and another for others', () => {
    expect(makeDay(AUCTIONS, '2026-11-02', 7)).toEqual(makeDay(AUCTIONS, '2026-11-02', 7));
    expect(makeDay(AUCTIONS, '2026-11-02', 7)).not.toEqual(makeDay(AUCTIONS, '2026-11-03', 7));
    expect(makeDay(AUCTIONS, '2026-11-02', 7)).not.toEqual(makeDay(AUCTIONS, '2026-11-02', 8));
  });

  test('of one query does not change when another is stopped', () => {
    const all = makeDay(AUCTIONS, '2026-11-02', 7).find((d) => d.queryId === 2);
    const alone = makeDay(AUCTIONS.slice(1), '2026-11-02', 7).find((d) => d.queryId === 2);
    expect(alone).toEqual(all);
  });

  test('keeps its figures in order, and its conversions only grow', () => {
    for (const day of november) {
      for (const served of makeDay(AUCTIONS, day, 7)) {
        expect(served.clicks).toBeLessThanOrEqual(served.impressions);
        const [first, second, last] = served.conversions;
        expect(first).toBeLessThanOrEqual(second);
        expect(second).toBeLessThanOrEqual(last);
        expect(last).toBeLessThanOrEqual(served.clicks);
        expect(Number.isInteger(served.costMicros)).toBe(true);
      }
    }
  });

  test('follows the rates it was given, over many days', () => {
    let [impressions, clicks] = [0, 0];
    for (const day of november) {
      for (const served of makeDay(AUCTIONS, day, 7)) {
        impressions += served.impressions;
        clicks += served.clicks;
      }
    }
    expect(impressions / (28 * 2 * 400)).toBeCloseTo(1, 1);
    expect(clicks / impressions).toBeCloseTo(0.2, 1);
  });
});

describe('a query that is surely unseen', () => {
  test('would have had no impression with any winner', () => {
    const daily = fc.double({ min: 0, max: 20, noNaN: true });
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    const seed = fc.double({ min: 0, max: 0.999_999, noNaN: true });
    fc.assert(
      fc.property(daily, share, seed, (mean, of, from) => {
        const drawn = randomPoisson.source(randomLcg(from))(mean * of)();
        if (isSurelyUnseen(mean, from)) expect(drawn).toBe(0);
        else if (of === 1) expect(drawn).toBeGreaterThan(0);
      }),
    );
  });
});
