import { describe, expect, test } from 'vitest';
import fc from 'fast-check';
import { breaksPromise, withinBounds } from './bounds';
import { meets, worthOf, type Judge, type Sums } from './meets';
import { neighboursOf } from './neighbours';
import type { Condition, Rule, SumCondition } from './rule';

const SUMS: Sums = { impressions: 400, clicks: 20, costMicros: 30, conversions: 1, valueMicros: 90 };
const BY_CPA: Judge = {
  ...{ target: { by: 'CPA', micros: 26 }, prior: { alpha: 2, beta: 48 }, cpcMicros: 1 },
  own: { by: 'CPA', micros: 13 },
};
const BY_ACOS: Judge = { ...BY_CPA, target: { by: 'ACoS', fraction: 0.25, meanValueMicros: 80 } };
const spends = (is: 'at least' | 'at most', share: number): SumCondition => ({ of: 'budget', is, share });
const above = (times: number): SumCondition => ({ of: 'target', is: 'above', times });
const dear = (times: number): SumCondition => ({ of: 'ad groups', is: 'above', times });
const below = (times: number): SumCondition => ({ of: 'target', is: 'below', times });

describe('conditions', () => {
  test.each<[SumCondition, Partial<Sums>, Judge, boolean]>([
    [{ of: 'clicks', is: 'at least', value: 20 }, {}, BY_CPA, true],
    [{ of: 'clicks', is: 'at least', value: 21 }, {}, BY_CPA, false],
    [{ of: 'conversions', is: 'at most', value: 0 }, {}, BY_CPA, false],
    [{ of: 'conversions', is: 'at most', value: 0 }, { conversions: NaN }, BY_CPA, false],
    [{ of: 'conversions', is: 'at least', value: 0.3 }, { conversions: 0.1 + 0.2 - 1e-12 }, BY_CPA, true],
    [above(1), {}, BY_CPA, true],
    [above(1.5), {}, BY_CPA, false],
    [below(1.5), {}, BY_CPA, true],
    // Without a conversion the cost is held against the target of one.
    [above(1), { conversions: 0 }, BY_CPA, true],
    [above(1), { conversions: 0, costMicros: 20 }, BY_CPA, false],
    [above(1), {}, BY_ACOS, true], // 30 of 90, and a quarter may be spent
    [above(2), {}, BY_ACOS, false],
    [above(1), { valueMicros: 0, costMicros: 21 }, BY_ACOS, true], // a quarter of what one brings: 20
    [above(1), { valueMicros: 0, costMicros: 19 }, BY_ACOS, false],
    [dear(2), {}, BY_CPA, true], // 30, where its ad groups pay 13 for a conversion
    [dear(2.5), {}, BY_CPA, false],
    [dear(1), {}, { ...BY_CPA, own: null }, false],
    [dear(1), {}, { ...BY_CPA, own: { by: 'CPA', micros: null } }, false],
    [above(0), {}, { ...BY_CPA, target: { by: 'CPA', micros: null } }, false],
    [below(9), {}, { ...BY_CPA, target: { by: 'CPA', micros: null } }, false],
    // 30 in ten days, of a budget of 4 a day
    [spends('at least', 0.75), {}, { ...BY_CPA, budgetMicros: 4 }, true],
    [spends('at least', 0.76), {}, { ...BY_CPA, budgetMicros: 4 }, false],
    [spends('at most', 0.75), {}, { ...BY_CPA, budgetMicros: 4 }, true],
    [spends('at most', 9), {}, { ...BY_CPA, budgetMicros: null }, false],
    [spends('at most', 9), { costMicros: NaN }, { ...BY_CPA, budgetMicros: 4 }, false],
    [{ of: 'evidence', is: 'at least', probability: 0.5 }, { conversions: 0 }, BY_CPA, true],
    [{ of: 'evidence', is: 'at least', probability: 0.5 }, { conversions: 6 }, BY_CPA, false],
    [{ of: 'evidence', is: 'at least', probability: 0.5 }, {}, { ...BY_CPA, prior: null }, false],
    [{ of: 'evidence', is: 'at least', probability: 0 }, { clicks: NaN }, BY_CPA, false],
  ])('%j of %j', (condition, sums, judge, is) => {
    expect(meets(condition, { ...SUMS, ...sums }, judge, 10)).toBe(is);
  });

  test('what conversions are worth is what they may cost', () => {
    expect(worthOf(BY_CPA, { conversions: 2, valueMicros: 500 })).toBe(52);
    expect(worthOf(BY_ACOS, { conversions: 2, valueMicros: 500 })).toBe(125);
    expect(
      worthOf({ ...BY_CPA, target: { by: 'CPA', micros: null } }, { conversions: 2, valueMicros: 0 }),
    ).toBe(0);
  });
});

describe('neighbours of a rule', () => {
  const rule = (...when: Condition[]): Rule => ({
    ...{ when, lookBack: { days: 30, lagDays: 2 }, where: { is: 'everywhere', campaigns: [] } },
    ...{ then: { do: 'tell' }, how: { is: 'by approval' }, often: 'after each report' },
  });
  const thresholds = (...when: Condition[]) => neighboursOf(rule(...when)).map(({ condition }) => condition);

  test('are a third below and above the first threshold', () => {
    const none: Condition = { of: 'conversions', is: 'at most', value: 0 };
    expect(thresholds(none, { of: 'clicks', is: 'at least', value: 15 })).toMatchObject([
      { value: 10 },
      { value: 15 },
      { value: 20 },
    ]);
    const [looser] = neighboursOf(rule(none, { of: 'clicks', is: 'at least', value: 15 }));
    expect(looser!.rule.when[0]).toBe(none);
    expect(thresholds({ of: 'clicks', is: 'at least', value: 1 })).toMatchObject([
      { value: 1 },
      { value: 2 },
    ]);
    expect(thresholds({ of: 'costMicros', is: 'at least', value: 25e6 })).toMatchObject([
      { value: 16.7e6 },
      { value: 25e6 },
      { value: 33.3e6 },
    ]);
  });

  test('go by steps of sureness, and by quarters of the target', () => {
    expect(thresholds({ of: 'evidence', is: 'at least', probability: 0.9 })).toMatchObject([
      { probability: 0.8 },
      { probability: 0.9 },
      { probability: 0.95 },
    ]);
    expect(thresholds({ of: 'evidence', is: 'at least', probability: 0.99 })).toHaveLength(2);
    expect(thresholds(above(2))).toMatchObject([{ times: 1.5 }, { times: 2 }, { times: 2.5 }]);
  });

  test('go by days of age and by searches, too', () => {
    expect(thresholds({ of: 'age', is: 'at least', days: 14 })).toMatchObject([
      { days: 9 },
      { days: 14 },
      { days: 19 },
    ]);
    expect(thresholds({ of: 'age', is: 'at least', days: 1 })).toHaveLength(2);
    expect(thresholds({ of: 'searches', is: 'at least', value: 300 })).toMatchObject([
      { value: 200 },
      { value: 300 },
      { value: 400 },
    ]);
  });

  test('are none where no threshold can be shifted', () => {
    expect(thresholds({ of: 'words', is: 'any of', words: ['free'] })).toHaveLength(1);
    expect(neighboursOf(rule(below(1)))).toMatchObject([{ isOwn: true }]);
  });
});

describe('within bounds', () => {
  const bounds = { changesADay: 10, costADayMicros: 100, leastKept: 0.5 };
  const NOTHING_DONE = { changes: 0, costMicros: 0 };

  test('what is too much for the day is left, and what fits after it is taken', () => {
    const [dear, two, last, many] = [
      { changes: 1, costMicros: 101 },
      { changes: 2, costMicros: 60 },
      { changes: 1, costMicros: 40 },
      { changes: 8, costMicros: 0 },
    ];
    expect(withinBounds([dear, two, last, many], bounds, NOTHING_DONE)).toEqual([two, last]);
    expect(withinBounds([many, two], bounds, { changes: 2, costMicros: 0 })).toEqual([many]);
    expect(withinBounds([last], bounds, { changes: 0, costMicros: 61 })).toEqual([]);
  });

  const amounts = fc.record({ changes: fc.integer({ min: 1, max: 9 }), costMicros: fc.nat(90) });
  test('no day holds more than its bounds, and nothing that would still fit is left', () => {
    fc.assert(
      fc.property(fc.array(amounts), amounts, (found, done) => {
        const taken = withinBounds(found, bounds, done);
        const sums = (some: typeof found) => ({
          changes: some.reduce((sum, one) => sum + one.changes, done.changes),
          costMicros: some.reduce((sum, one) => sum + one.costMicros, done.costMicros),
        });
        const fits = ({ changes, costMicros }: typeof done) => changes <= 10 && costMicros <= 100;
        if (taken.length > 0) expect(fits(sums(taken))).toBe(true);
        for (const left of found.filter((one) => !taken.includes(one)))
          expect(fits(sums([...taken, left]))).toBe(false);
      }),
    );
  });
});

test.each([
  [{ promisedMicros: 100, cameMicros: 49, leastMicros: 60, days: 7 }, true],
  [{ promisedMicros: 100, cameMicros: 49, leastMicros: 40, days: 7 }, false],
  [{ promisedMicros: 100, cameMicros: -5, leastMicros: 0, days: 7 }, true],
  [{ promisedMicros: 100, cameMicros: 50, leastMicros: 60, days: 7 }, false],
  [{ promisedMicros: 100, cameMicros: 0, leastMicros: 60, days: 6 }, false],
  [{ promisedMicros: 0, cameMicros: -5, leastMicros: 0, days: 30 }, false],
])('a promise of which half has to come: %j', (kept, isBroken) => {
  expect(breaksPromise(kept, 0.5)).toBe(isBroken);
});
