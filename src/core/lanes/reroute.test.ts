import fc from 'fast-check';
import { expect, test } from 'vitest';
import { aText } from '../gate/testing';
import { rerouteQueries, type ServedQuery } from './reroute';
import { compileLanes, type Tier } from './tiers';
import { aPlan } from './testing';

const PLAN: Tier[] = [
  { id: 'all', entryTerms: [] },
  { id: 'makers', entryTerms: ['pellwright'] },
];
const served = (
  query: string,
  tier: number,
  clicks: number,
  costMicros: number,
  conversions: number | null,
) => ({ query, tier, clicks, costMicros, conversions }) satisfies ServedQuery;

test('a click that moves costs and converts as those do that its new tier served rightly', () => {
  const queries = [
    served('hive stand', 0, 100, 50_000_000, 1),
    served('pellwright smoker', 0, 20, 10_000_000, 0),
    served('pellwright veil', 1, 50, 40_000_000, 2),
  ];
  expect(rerouteQueries(compileLanes(PLAN), 2, queries)).toEqual({
    really: [
      { clicks: 120, costMicros: 60_000_000, conversions: 1 },
      { clicks: 50, costMicros: 40_000_000, conversions: 2 },
    ],
    byPlan: [
      { clicks: 100, costMicros: 50_000_000, conversions: 1 },
      { clicks: 70, costMicros: 56_000_000, conversions: 2.8 },
    ],
    leaks: [{ at: 1, own: 1 }],
  });
});

test('where a tier served nothing rightly, a click is what it was; conversions that nobody counts stay unknown', () => {
  const queries = [served('pellwright', 0, 10, 5_000_000, 1), served('hive', 1, 4, 3_000_000, null)];
  const { byPlan, leaks } = rerouteQueries(compileLanes(PLAN), 2, queries);
  expect(byPlan).toEqual([
    { clicks: 4, costMicros: 3_000_000, conversions: null },
    { clicks: 10, costMicros: 5_000_000, conversions: 1 },
  ]);
  expect(leaks).toEqual([
    { at: 0, own: 1 },
    { at: 1, own: 0 },
  ]);
});

test('no click is lost, and each query is a leak or where the plan says', () => {
  const some = aPlan().chain((tiers) =>
    fc.tuple(
      fc.constant(tiers),
      fc.array(
        fc.record({
          ...{
            query: aText(),
            tier: fc.nat(tiers.length - 1),
            clicks: fc.nat(50),
            costMicros: fc.nat(9_000),
          },
          conversions: fc.option(fc.nat(3)),
        }),
      ),
    ),
  );
  fc.assert(
    fc.property(some, ([tiers, queries]) => {
      const lanes = compileLanes(tiers);
      const { really, byPlan, leaks } = rerouteQueries(lanes, tiers.length, queries);
      const clicks = (all: readonly { clicks: number }[]) => all.reduce((sum, one) => sum + one.clicks, 0);
      expect(clicks(byPlan)).toBe(clicks(queries));
      expect(clicks(really)).toBe(clicks(queries));
      expect(leaks.map(({ at }) => at).sort((a, b) => a - b)).toEqual(
        queries.flatMap(({ query, tier }, at) => (lanes.route(query) === tier ? [] : [at])),
      );
      const costs = leaks.map(({ at }) => queries[at]!.costMicros);
      expect(costs).toEqual(costs.toSorted((a, b) => b - a));
    }),
  );
});
