import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { reckonSaved, trafficChange, type Acting, type PlayedRow } from './saved';

const acting = (from: number, until = Infinity, toCome = 1): Acting => ({ from, until, toCome });
/** Costs by week, after what it cost a day before. */
const place = (before: number, ...costMicros: number[]): PlayedRow => ({
  ...{ costMicros, before: () => before, traffic: () => 1 },
});
const total = (parts: ReturnType<typeof reckonSaved>, of: 'expectedMicros' | 'stillMicros' | 'backMicros') =>
  parts.reduce((sum, part) => sum + part[of], 0);
const savedBy = (parts: ReturnType<typeof reckonSaved>, change?: Acting) =>
  parts
    .filter((part) => change === undefined || part.change === change)
    .reduce((sum, part) => sum + part.expectedMicros - part.stillMicros - part.backMicros, 0);

describe('what was saved', () => {
  test('is what it cost before where nothing is served any more', () => {
    const parts = reckonSaved([7, 7], [place(10, 0, 0)], [{ row: 0, change: acting(0) }]);
    expect(parts).toHaveLength(2);
    expect(savedBy(parts)).toBe(140);
  });

  test('is less what comes back elsewhere, and what is served all the same', () => {
    const parts = reckonSaved([7], [place(10, 5), place(2, 44)], [{ row: 0, change: acting(0) }]);
    expect(total(parts, 'backMicros')).toBe(30);
    expect(savedBy(parts)).toBe(70 - 5 - 30);
  });

  test('follows the traffic of the place', () => {
    const row: PlayedRow = { ...place(10, 0, 0), traffic: (_, period) => (period === 0 ? 0.5 : 0) };
    const parts = reckonSaved([7, 7], [row], [{ row: 0, change: acting(0) }]);
    expect(parts.map(({ expectedMicros }) => expectedMicros)).toEqual([35, 0]);
  });

  test('counts the costliest terms lower, as they were predicted', () => {
    const change = acting(0, Infinity, 0.9);
    expect(savedBy(reckonSaved([10], [place(10, 0)], [{ row: 0, change }]))).toBe(90);
  });

  test('what comes back is part of what was stopped: what goes far beyond it is chance', () => {
    const [change, huge] = [acting(0), place(1_000, 100_000)];
    const parts = reckonSaved([7], [place(10, 0), huge], [{ row: 0, change }]);
    expect(total(parts, 'backMicros')).toBe(140);
    const less = reckonSaved([7], [place(10, 0), place(1_000, 0)], [{ row: 0, change }]);
    expect(total(less, 'backMicros')).toBe(-70);
  });

  test('ends when a change is taken back', () => {
    const change = acting(0, 1);
    const parts = reckonSaved([7, 7], [place(10, 0, 70)], [{ row: 0, change }]);
    expect(parts.map(({ period }) => period)).toEqual([0]);
    expect(savedBy(parts)).toBe(70);
  });

  test('what came back of the first stop stays with it when the second one stops that, too', () => {
    const [first, second] = [acting(0), acting(1)];
    // 10 a day here; 6 of them come back there, until they are stopped there as well.
    const there: PlayedRow = { ...place(0, 42, 0), before: (change) => (change === first ? 0 : 6) };
    const parts = reckonSaved(
      [7, 7],
      [place(10, 0, 0), there],
      [
        { row: 0, change: first },
        { row: 1, change: second },
      ],
    );
    expect(savedBy(parts, first)).toBe(2 * 28);
    expect(savedBy(parts, second)).toBe(42);
    expect(savedBy(parts)).toBe(28 + 70);
  });

  test('what comes back of changes that began at once is shared out by what they stop', () => {
    const [one, other] = [acting(0), acting(0)];
    const parts = reckonSaved(
      [10],
      [place(3, 0), place(1, 0), place(0, 20)],
      [
        { row: 0, change: one },
        { row: 1, change: other },
      ],
    );
    expect(savedBy(parts, one)).toBe(30 - 15);
    expect(savedBy(parts, other)).toBe(10 - 5);
  });

  test('all that is saved is all that was expected of the term, less all that it costs', () => {
    const cost = fc.integer({ min: 0, max: 50 });
    const row = fc.record({ before: cost, costs: fc.tuple(cost, cost, cost), isStopped: fc.boolean() });
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 5 }), (rows) => {
        const change = acting(0);
        const places = rows.map(({ before, costs }) => place(before, ...costs));
        const stopping = rows.flatMap(({ isStopped }, r) => (isStopped ? [{ row: r, change }] : []));
        const parts = reckonSaved([7, 7, 7], places, stopping);
        if (stopping.length === 0) {
          expect(parts).toEqual([]);
          return;
        }
        const expected = rows.reduce((sum, { before }) => sum + 21 * before, 0);
        const cost = rows.reduce((sum, { costs }) => sum + costs[0] + costs[1] + costs[2], 0);
        const stopped = total(parts, 'expectedMicros');
        const still = total(parts, 'stillMicros');
        const [least, most] = [-stopped, 2 * stopped];
        const back = cost - still - (expected - stopped);
        expect(total(parts, 'backMicros')).toBeCloseTo(Math.min(most, Math.max(least, back)));
        if (back >= least && back <= most) expect(savedBy(parts)).toBeCloseTo(expected - cost);
      }),
    );
  });
});

describe('traffic', () => {
  const account = { before: 400, since: 200 };
  test.each([
    [{ before: 50, since: 60, impressions: 1_500 }, 1.2],
    [{ before: 5, since: 60, impressions: 150 }, 0.5],
    [{ before: 50, since: 0, impressions: 1_500 }, 0],
  ])('of %j is %d times what it was', (of, change) => {
    expect(trafficChange(of, account)).toBe(change);
  });

  test('is as it was where nothing else ran at all', () => {
    expect(trafficChange({ before: 0, since: 9, impressions: 0 }, { before: 0, since: 9 })).toBe(1);
  });
});
