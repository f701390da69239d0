import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { bidOfRule } from './bid-of-rule';
import type { Judge } from './meets';
import type { KeywordAction } from './rule';

type BidAction = Extract<KeywordAction, { do: 'set bid' }>;
const judge: Pick<Judge, 'target' | 'prior'> = {
  ...{ target: { by: 'CPA', micros: 20_000_000 }, prior: { alpha: 2, beta: 48 } },
};
const bid = (
  over: Partial<BidAction>,
  [clicks, conversions]: [number, number],
  wasMicros: number,
  of: Partial<typeof judge> = {},
) =>
  bidOfRule(
    { do: 'set bid', way: 'lower', leastMicros: 100_000, mostMicros: 2_000_000, ...over },
    { sums: { clicks, conversions }, judge: { ...judge, ...of }, wasMicros, unitMicros: 10_000 },
  );

describe('the bid that a rule proposes', () => {
  test('is what pays: the worth of a conversion times the rate to be expected', () => {
    expect(bid({}, [50, 0], 900_000)).toBe(400_000); // 2 of 100, 20 each
    expect(bid({ way: 'raise' }, [50, 8], 900_000)).toBe(2_000_000); // 10 of 100 would pay 2.00
    expect(bid({ way: 'raise' }, [50, 3], 900_000)).toBe(1_000_000);
  });

  test('stays between floor and ceiling', () => {
    expect(bid({ leastMicros: 600_000 }, [50, 0], 900_000)).toBe(600_000);
    expect(bid({ way: 'raise', mostMicros: 950_000 }, [50, 8], 900_000)).toBe(950_000);
  });

  test('is none where it would go the other way, or stay', () => {
    expect(bid({}, [50, 8], 900_000)).toBeNull();
    expect(bid({ way: 'raise' }, [50, 0], 900_000)).toBeNull();
    expect(bid({}, [50, 0], 400_000)).toBeNull();
  });

  test('is none where nothing can be said', () => {
    expect(bid({}, [50, 0], 900_000, { prior: null })).toBeNull();
    expect(bid({}, [50, 0], 900_000, { target: { by: 'CPA', micros: null } })).toBeNull();
    expect(bid({}, [NaN, 0], 900_000)).toBeNull();
  });

  test('never leaves its bounds, and never goes the wrong way', () => {
    const amount = fc.integer({ min: 1, max: 500 }).map((units) => units * 10_000);
    fc.assert(
      fc.property(
        ...[
          amount,
          amount,
          amount,
          fc.nat(500),
          fc.nat(50),
          fc.constantFrom('lower' as const, 'raise' as const),
        ],
        (one, other, wasMicros, clicks, conversions, way) => {
          const [leastMicros, mostMicros] = [Math.min(one, other), Math.max(one, other)];
          const next = bid({ way, leastMicros, mostMicros }, [clicks, conversions], wasMicros);
          if (next === null) return;
          expect(next).toBeGreaterThanOrEqual(leastMicros);
          expect(next).toBeLessThanOrEqual(mostMicros);
          expect(Math.sign(next - wasMicros)).toBe(way === 'lower' ? -1 : 1);
        },
      ),
    );
  });
});
