import { describe, expect, test } from 'vitest';
import { openingBid, overTarget } from './opening-bid';

const cpa = { by: 'CPA', micros: 20_000_000 } as const;
const acos = { by: 'ACoS', fraction: 0.3 } as const;
const brought = { clicks: 40, costMicros: 20_000_000, conversions: 2, valueMicros: 80_000_000 };

describe('how far a source is over its target', () => {
  test('is a share of the CPA, and points of the ACoS', () => {
    expect(overTarget(brought, cpa)).toBeCloseTo(-0.5);
    expect(overTarget({ ...brought, conversions: 0.8 }, cpa)).toBeCloseTo(0.25);
    expect(overTarget(brought, acos)).toBeCloseTo(-0.05);
    expect(overTarget({ ...brought, valueMicros: 50_000_000 }, acos)).toBeCloseTo(0.1);
  });

  test('is infinite where nothing came back, and not known without cost or where nobody counts', () => {
    expect(overTarget({ ...brought, conversions: 0 }, cpa)).toBe(Infinity);
    expect(overTarget({ ...brought, costMicros: 0 }, cpa)).toBeNull();
    expect(overTarget({ ...brought, valueMicros: null }, acos)).toBeNull();
  });
});

describe('the opening bid', () => {
  test('is the CPC of a term within its target, and less where it is over', () => {
    expect(openingBid(brought, cpa, 10_000)).toBe(500_000);
    expect(openingBid({ ...brought, conversions: 0.5 }, cpa, 10_000)).toBe(250_000);
    expect(openingBid({ ...brought, valueMicros: 50_000_000 }, acos, 10_000)).toBe(370_000); // 0.5 × 0.3 / 0.4 = 0.375
  });

  test('is what a click cost where there is no target', () => {
    expect(openingBid({ ...brought, conversions: 0.5 }, null, 10_000)).toBe(500_000);
    expect(openingBid({ ...brought, clicks: 0 }, null, 10_000)).toBeNull();
  });

  test('is of whole units of the currency, at least one', () => {
    expect(openingBid(brought, cpa, 1_000_000)).toBe(1_000_000);
    expect(openingBid({ ...brought, clicks: 30 }, cpa, 1_000)).toBe(666_000);
  });

  test('is not known without a click, or without what is steered by', () => {
    expect(openingBid({ ...brought, clicks: 0 }, cpa, 10_000)).toBeNull();
    expect(openingBid({ ...brought, conversions: 0 }, cpa, 10_000)).toBeNull();
    expect(openingBid({ ...brought, valueMicros: null }, acos, 10_000)).toBeNull();
  });
});
