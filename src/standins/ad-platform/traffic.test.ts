import { randomLcg, randomPoisson } from 'd3';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Auction, Bidder } from './auction';
import { isSurelyUnseen, makeDay } from './traffic';

const bidder = (over: Partial<Bidder> = {}): Bidder => ({
  ...{ adGroupId: 'g1', keywordId: 'k1', fit: 1, bidMicros: 700_000, weight: 1, hash: 1 },
  ...{ turn: null, budget: null, ...over },
});
const auctionOf = (id: number, over: { fit?: number; bidMicros?: number } = {}): Auction => ({
  query: {
    ...{ id, text: `bee ${id}`, daily: 400, ctr: 0.2, cvr: 0.1, valueMicros: 40_000_000, unreported: false },
    ...{ cpcMicros: 500_000, means: [], automaticIn: [] },
  },
  bidders: [bidder(over)],
  isInTurns: false,
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

describe('a day on which campaigns are asked in turns', () => {
  const budget = { id: 'of c1', micros: 100_000_000 };
  const lanes = Array.from({ length: 12 }, (_, i): Auction => ({
    ...auctionOf(i + 1),
    bidders: [
      bidder({ turn: 1, budget }),
      bidder({ adGroupId: 'g2', turn: 2, budget: { id: 'of c2', micros: 1e12 }, hash: 2 }),
    ],
    isInTurns: true,
  }));
  const costOf = (served: ReturnType<typeof makeDay>, of: string) =>
    served.filter(({ adGroupId }) => adGroupId === of).reduce((sum, { costMicros }) => sum + costMicros, 0);

  test('passes queries on to the next once the first has spent its budget, each to one of them', () => {
    const served = makeDay(lanes, '2026-11-02', 7);
    const dearest = Math.max(...served.map(({ costMicros }) => costMicros));
    expect(costOf(served, 'g1')).toBeGreaterThanOrEqual(budget.micros);
    expect(costOf(served, 'g1')).toBeLessThan(budget.micros + dearest);
    expect(costOf(served, 'g2')).toBeGreaterThan(0);
    expect(new Set(served.map(({ queryId }) => queryId)).size).toBe(served.length);
  });

  test('is the same each time, passes other queries on the next day, and begins with what is in no turn', () => {
    expect(makeDay(lanes, '2026-11-02', 7)).toEqual(makeDay(lanes, '2026-11-02', 7));
    const passedOn = (day: string) =>
      makeDay(lanes, day, 7).flatMap(({ adGroupId, queryId }) => (adGroupId === 'g2' ? queryId : []));
    expect(passedOn('2026-11-02')).not.toEqual(passedOn('2026-11-03'));
    const [first] = makeDay([...lanes, auctionOf(99)], '2026-11-02', 7);
    expect(first!.queryId).toBe(99);
  });

  test('leaves a query unserved where one budget that all share is spent', () => {
    const shared = lanes.map((auction) => ({
      ...auction,
      bidders: auction.bidders.map((one) => ({ ...one, budget })),
    }));
    const served = makeDay(shared, '2026-11-02', 7);
    expect(costOf(served, 'g2')).toBe(0);
    expect(served.length).toBeLessThan(lanes.length);
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
