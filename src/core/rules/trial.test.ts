import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { FIGURE_NAMES } from '../figures';
import { meets, worthOf, type Judge, type Sums } from './meets';
import { MEASURES } from './rule';
import { tryRules, type TermFacts, type Tried } from './trial';

type Fact = { term: number; day: number; adGroup: number; keyword?: number; knownFrom?: number } & Sums;
const JUDGE: Judge = {
  target: { by: 'CPA', micros: 20 },
  prior: { alpha: 0.5, beta: 20 },
  cpcMicros: 1,
  own: null,
};

function columnsOf(facts: readonly Fact[]): TermFacts {
  const sorted = facts.toSorted((a, b) => a.term - b.term || a.day - b.day);
  return {
    count: sorted.length,
    termId: Int32Array.from(sorted, ({ term }) => term),
    day: Int32Array.from(sorted, ({ day }) => day),
    knownFrom: sorted.some(({ knownFrom }) => knownFrom !== undefined)
      ? Int32Array.from(sorted, ({ day, knownFrom = day }) => knownFrom)
      : null,
    adGroupId: Int32Array.from(sorted, ({ adGroup }) => adGroup),
    keywordId: Int32Array.from(sorted, ({ keyword = 0 }) => keyword),
    figures: Float64Array.from(sorted.flatMap((fact) => FIGURE_NAMES.map((name) => fact[name]))),
  };
}
const factOf = (day: number, brought: Partial<Fact>): Fact => ({
  ...{ term: 7, day, adGroup: 1, impressions: 50, clicks: 5, costMicros: 3, conversions: 0, valueMicros: 0 },
  ...brought,
});
const after15: Tried = {
  when: [
    { of: 'clicks', is: 'at least', value: 15 },
    { of: 'conversions', is: 'at most', value: 0 },
  ],
  ...{
    lookBack: { days: 30, lagDays: 2 },
    everyDays: 1,
    terms: null,
    adGroups: null,
    keywords: null,
    openOn: null,
  },
};
const trialOf = (facts: readonly Fact[], rule: Partial<Tried>, from: number, to: number) =>
  tryRules(columnsOf(facts), [{ ...after15, ...rule }], { from, to }, () => JUDGE)[0]!;

describe('a trial', () => {
  const facts = [1, 2, 3, 4, 5, 6, 7, 8].map((day) => factOf(day, { conversions: day === 8 ? 1 : 0 }));

  test('stops a term once what is known by then meets the rule, and counts what came later', () => {
    const trial = trialOf(facts, {}, 1, 10);
    // By the evening of day 5 the first three days are known.
    expect(trial.stopped).toEqual([
      {
        ...{ termId: 7, day: 5, savedMicros: 9, lostConversions: 1, lostMicros: 20 },
        sums: { impressions: 150, clicks: 15, costMicros: 9, conversions: 0, valueMicros: 0 },
      },
    ]);
    expect([...trial.savedMicros]).toEqual([0, 0, 0, 0, 0, 3, 3, 3, 0, 0]);
    expect([...trial.lostMicros]).toEqual([0, 0, 0, 0, 0, 0, 0, 20, 0, 0]);
  });

  test('of a weekly rule looks on its evenings only', () => {
    expect(trialOf(facts, { everyDays: 7 }, 1, 14).stopped[0]!.day).toBe(8);
  });

  test('looks, and counts, in the ad groups of the rule alone', () => {
    const elsewhere = facts.map((fact) => ({ ...fact, adGroup: 2, conversions: 1 }));
    const trial = trialOf([...facts, ...elsewhere], { adGroups: new Set([1]) }, 1, 10);
    expect(trial.stopped).toMatchObject([{ day: 5, savedMicros: 9, lostConversions: 1 }]);
    expect(trialOf([...facts, ...elsewhere], {}, 1, 10).stopped).toEqual([]);
  });

  test('sees what some keywords served, and stops the term where they did, for all keywords there', () => {
    const broad = facts.map((fact) => ({ ...fact, keyword: 5 }));
    const exact = facts.map((fact) => ({ ...fact, keyword: 6, conversions: 1 }));
    const elsewhere = exact.map((fact) => ({ ...fact, adGroup: 2 }));
    const trial = trialOf([...broad, ...exact, ...elsewhere], { keywords: new Set([5]) }, 1, 10);
    // After day 5 come three days of both keywords in the first ad group; the second goes on.
    expect(trial.stopped).toMatchObject([{ day: 5, savedMicros: 18, lostConversions: 4 }]);
    expect(trialOf(exact, { keywords: new Set([5]) }, 1, 10).stopped).toEqual([]);
  });

  test('of terms of an age looks on evenings on which nothing came, too', () => {
    const old = (days: number, is: 'at least' | 'at most'): Tried['when'] => [
      ...after15.when,
      { of: 'age', is, days },
    ];
    const three = facts.slice(0, 3);
    expect(trialOf(three, { when: old(12, 'at least') }, 1, 30).stopped[0]!.day).toBe(13);
    expect(trialOf(three, { when: old(4, 'at most') }, 1, 30).stopped[0]!.day).toBe(5);
    expect(trialOf(three, { when: old(3, 'at most') }, 1, 30).stopped).toEqual([]);
  });

  test('passes over terms that the rule is not about', () => {
    expect(trialOf(facts, { terms: new Set([8]) }, 1, 10).stopped).toEqual([]);
  });

  test('does not take conversions that are not known for none', () => {
    const unknown = facts.map((fact) => ({ ...fact, conversions: NaN }));
    expect(trialOf(unknown, {}, 1, 10).stopped).toEqual([]);
  });

  test('parts of a conversion that went again leave nothing behind', () => {
    const parts = [0.1, 0.2, 0.3].map((conversions, i) => factOf(i - 40, { conversions }));
    expect(trialOf([...parts, ...facts], {}, -40, 10).stopped[0]!.day).toBe(5);
  });

  test('does not see what a later load brought, before it was loaded', () => {
    // The conversion of day 2 came with the load of day 7, when the term was stopped already.
    const late = [
      ...facts.slice(0, 7),
      factOf(2, { clicks: 0, costMicros: 0, conversions: 1, knownFrom: 7 }),
    ];
    expect(trialOf(late, {}, 1, 10).stopped).toMatchObject([{ day: 5, lostConversions: 0 }]);
    const sooner = late.map((fact) => (fact.knownFrom ? { ...fact, knownFrom: 5 } : fact));
    expect(trialOf(sooner, {}, 1, 10).stopped).toEqual([]);
  });

  test('of no evenings, or no facts, is empty', () => {
    expect(trialOf([], {}, 1, 5).stopped).toEqual([]);
    expect(trialOf(facts, {}, 5, 1)).toMatchObject({ stopped: [], savedMicros: new Float64Array(0) });
  });
});

const isMet = (one: Tried['when'][number], sums: Sums, age: number) =>
  one.of !== 'age' ? meets(one, sums, JUDGE, 30) : one.is === 'at least' ? age >= one.days : age <= one.days;

/** The rule as it reads: each evening, everything that is known is summed anew. */
function replay(facts: readonly Fact[], rule: Tried, from: number, to: number) {
  const { when, lookBack, everyDays, adGroups, keywords, terms } = rule;
  const sumsOf = (some: readonly Fact[]) =>
    Object.fromEntries(
      MEASURES.map((of) => {
        const known = some.map((fact) => fact[of]).filter((value) => !Number.isNaN(value));
        return [of, known.length === 0 ? NaN : known.reduce((all, value) => all + value, 0)];
      }),
    ) as Sums;
  const ids = [...new Set(facts.map(({ term }) => term))].sort((a, b) => a - b);
  return ids.flatMap((termId) => {
    if (terms && !terms.has(termId)) return [];
    const ofTerm = facts.filter(({ term }) => term === termId);
    const firstDay = Math.min(...ofTerm.map(({ day }) => day));
    const own = ofTerm.filter(({ adGroup }) => !adGroups || adGroups.has(adGroup));
    const isServed = ({ keyword = 0 }: Fact) => !keywords || keywords.has(keyword);
    for (let evening = from; evening <= to; evening += everyDays) {
      const last = evening - lookBack.lagDays;
      const isKnown = ({ day, knownFrom = day }: Fact) =>
        day <= last && day > last - lookBack.days && knownFrom <= evening;
      const seen = own.filter((fact) => isKnown(fact) && isServed(fact));
      const sums = sumsOf(seen);
      if (rule.openOn && !rule.openOn(termId, evening)) continue;
      if (seen.length === 0 || !when.every((one) => isMet(one, sums, evening - firstDay))) continue;
      const there = new Set(seen.map(({ adGroup }) => adGroup));
      const later = own.filter(
        ({ day, adGroup }) => day > evening && day <= to && (!keywords || there.has(adGroup)),
      );
      const brought = sumsOf(later);
      const known = { conversions: brought.conversions || 0, valueMicros: brought.valueMicros || 0 };
      return [
        {
          ...{ termId, day: evening, savedMicros: brought.costMicros || 0 },
          ...{ lostConversions: known.conversions, lostMicros: worthOf(JUDGE, known) },
        },
      ];
    }
    return [];
  });
}

test('it is what a plain replay of the evenings comes to', () => {
  const count = (max: number) => fc.oneof({ weight: 6, arbitrary: fc.nat(max) }, fc.constant(NaN));
  const aFact = fc.record({
    ...{ term: fc.nat(3), day: fc.integer({ min: -20, max: 30 }), adGroup: fc.nat(2) },
    keyword: fc.nat(2),
    ...{ impressions: count(90), clicks: count(9), costMicros: count(50), valueMicros: count(100) },
    conversions: fc.constantFrom(0, 0, 0, 0.25, 0.5, 1, NaN),
  });
  const aFactInTime = fc
    .tuple(aFact, fc.option(fc.nat(12), { nil: undefined }))
    .map(([fact, late]): Fact => (late === undefined ? fact : { ...fact, knownFrom: fact.day + late }));
  const condition = fc.oneof(
    fc.record({
      ...{ of: fc.constantFrom(...MEASURES), is: fc.constantFrom('at least' as const, 'at most' as const) },
      value: fc.nat(40),
    }),
    fc.record({
      ...{ of: fc.constant('target' as const), is: fc.constantFrom('above' as const, 'below' as const) },
      times: fc.constantFrom(0.5, 1, 2),
    }),
    fc.record({
      ...{ of: fc.constant('age' as const), is: fc.constantFrom('at least' as const, 'at most' as const) },
      days: fc.nat(30),
    }),
    fc.record({
      ...{ of: fc.constant('evidence' as const), is: fc.constant('at least' as const) },
      probability: fc.constantFrom(0.5, 0.8),
    }),
  );
  const some = (most: number) =>
    fc.option(
      fc.uniqueArray(fc.nat(most)).map((ids) => new Set(ids)),
      { freq: 2 },
    );
  const rule = fc.record({
    when: fc.array(condition, { minLength: 1, maxLength: 3 }),
    lookBack: fc.record({ days: fc.integer({ min: 1, max: 20 }), lagDays: fc.nat(5) }),
    ...{ everyDays: fc.constantFrom(1, 2, 7), terms: some(3), adGroups: some(2) },
    keywords: some(2),
    openOn: fc.constantFrom(null, (_: number, evening: number) => evening % 3 > 0),
  });
  fc.assert(
    fc.property(
      fc.array(aFactInTime, { maxLength: 60 }),
      fc.array(rule, { maxLength: 3 }),
      (facts, rules) => {
        const trials = tryRules(columnsOf(facts), rules, { from: 0, to: 28 }, () => JUDGE);
        rules.forEach((one, i) => {
          const wanted = replay(facts, one, 0, 28);
          expect(trials[i]!.stopped).toEqual(wanted.map((stop) => expect.objectContaining(stop)));
          const total = wanted.reduce((sum, { savedMicros }) => sum + savedMicros, 0);
          expect(trials[i]!.savedMicros.reduce((a, b) => a + b, 0)).toBe(total);
        });
      },
    ),
    { numRuns: 300 },
  );
});
