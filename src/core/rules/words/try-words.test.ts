import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { FIGURE_NAMES } from '../../figures';
import {
  buildTermTable,
  expectOfTexts,
  judgeNgrams,
  probabilityAtFault,
  shrinkRates,
  withoutParts,
} from '../../mining';
import { MEASURES } from '../rule';
import { meets, type Judge, type Sums } from '../meets';
import type { TermFacts } from '../trial';
import { fitWeeks, type WordsGround } from './fit-weeks';
import { tryWords, type TriedWords } from './try-words';

type Fact = { term: number; day: number; adGroup: number; knownFrom: number } & Sums;
const JUDGE: Judge = { target: { by: 'CPA', micros: 20 }, prior: null, cpcMicros: null, own: null };
const TEXTS = [
  'bee hive',
  'free hive',
  'free bee hive',
  'hive jobs',
  'bee hive jobs',
  'free jobs',
  'hive',
  null,
];
const GROUND: WordsGround = {
  textOf: (termId) => TEXTS[termId] ?? null,
  worthOf: (adGroup) => (adGroup === 2 ? NaN : 20),
  lagDays: 2,
};
const EVENINGS = { from: 0, to: 28 };

function columnsOf(facts: readonly Fact[]): TermFacts {
  const sorted = facts.toSorted((a, b) => a.term - b.term || a.day - b.day);
  const column = (of: (fact: Fact) => number) => Int32Array.from(sorted, of);
  return {
    ...{ count: sorted.length, termId: column(({ term }) => term), day: column(({ day }) => day) },
    knownFrom: column(({ knownFrom }) => knownFrom),
    ...{ adGroupId: column(({ adGroup }) => adGroup), keywordId: column(() => 0) },
    figures: Float64Array.from(sorted.flatMap((fact) => FIGURE_NAMES.map((name) => fact[name]))),
  };
}
const factOf = (term: number, day: number, brought: Partial<Fact> = {}): Fact => ({
  ...{ term, day, adGroup: 1, knownFrom: day, impressions: 90, clicks: 40, costMicros: 40, conversions: 0 },
  ...{ valueMicros: 0, ...brought },
});
const rule = (over: Partial<TriedWords> = {}): TriedWords => ({
  ...{ when: [{ of: 'clicks', is: 'at least', value: 1 }], lookBack: { days: 30, lagDays: 2 } },
  ...{ adGroups: null, level: 0.8, words: null },
  ...over,
});
const tryOne = (facts: readonly Fact[], over: Partial<TriedWords> = {}) => {
  const { ngrams, trials } = tryWords(columnsOf(facts), [rule(over)], EVENINGS, {
    ...{ ...GROUND, judgesOf: () => () => JUDGE },
  });
  return trials[0]!.stopped.map(({ termId, ...stop }) => ({ word: ngrams[termId]!, ...stop }));
};

describe('a trial of words at fault', () => {
  // What holds “free” never converts; the rest does, once in ten clicks.
  const days = Array.from({ length: 28 }, (_, i) => i);
  const facts = days.flatMap((day) => [
    factOf(0, day, { conversions: 4 }),
    factOf(1, day),
    factOf(2, day, { conversions: day > 20 ? 1 : 0 }),
  ]);

  test('stops a word on the first weekly evening on which it is at fault, and all that holds it', () => {
    const stopped = tryOne(facts);
    expect(stopped.map(({ word, day }) => [word, day])).toEqual([['free', 7]]);
    // From the eighth day on, two terms of 40 a day; one of them sold on each of the last seven days.
    expect(stopped[0]).toMatchObject({ savedMicros: 20 * 2 * 40, lostConversions: 7, lostMicros: 140 });
  });

  test('only where its look-back meets all conditions, and of words that the rule is about', () => {
    expect(tryOne(facts, { when: [{ of: 'clicks', is: 'at least', value: 1_000 }] })[0]!.day).toBe(14);
    expect(tryOne(facts, { words: (ngram) => ngram !== 'free' })).toEqual([]);
    expect(tryOne(facts, { level: 1 })).toEqual([]);
  });

  test('counts what each term brought once, where two of its words were stopped', () => {
    const both = days.flatMap((day) => [
      factOf(0, day, { conversions: 4 }),
      ...[factOf(1, day), factOf(3, day), factOf(5, day)],
    ]);
    const stopped = tryOne(both);
    expect(stopped.map(({ word }) => word)).toEqual(['free', 'jobs']);
    expect(stopped.reduce((all, { savedMicros }) => all + savedMicros, 0)).toBe(20 * 3 * 40);
  });

  test('nobody is judged where nothing converted', () => {
    expect(tryOne(facts.map((fact) => ({ ...fact, conversions: 0 })))).toEqual([]);
  });
});

/** Words at fault of an evening by sums of all that was known then, one by one. */
function plainFit(facts: readonly Fact[], evening: number) {
  const spoken = facts.filter(({ term }) => TEXTS[term] !== null);
  const last = Math.max(...facts.map(({ day }) => day));
  const all = judge(spoken.filter(({ day }) => day <= last - GROUND.lagDays));
  if (!all) return [];
  const then = judge(spoken.filter(({ day, knownFrom }) => Math.max(day + 2, knownFrom) <= evening));
  if (!then) return [];
  return all.words.flatMap(({ ngram }) => {
    const word = then.of(ngram);
    if (!(word.expected >= 1)) return [];
    const probability = probabilityAtFault(word, all.spread);
    return probability >= 0.8 ? [{ ngram, probability }] : [];
  });
}

function judge(facts: readonly Fact[]) {
  const spoken = [...new Set(facts.map(({ term }) => term))].sort((a, b) => a - b);
  const groups = [...new Set(facts.map(({ adGroup }) => adGroup))];
  const rows = spoken.flatMap((term, text) =>
    groups.flatMap((adGroup, g) => {
      const own = facts.filter((fact) => fact.term === term && fact.adGroup === adGroup);
      if (own.length === 0 || own.every(({ conversions }) => Number.isNaN(conversions))) return [];
      const sum = (of: 'clicks' | 'conversions' | 'costMicros') =>
        own.reduce((total, fact) => total + (fact[of] || 0), 0);
      const clicks = sum('clicks');
      const needed = sum('costMicros') / GROUND.worthOf(adGroup);
      return [{ term, text, g, clicks, conversions: Math.min(clicks, sum('conversions')), needed }];
    }),
  );
  const inGroups = (of: 'clicks' | 'conversions') =>
    Float64Array.from(groups, (_, g) => rows.reduce((sum, row) => sum + (row.g === g ? row[of] : 0), 0));
  const shrunk = shrinkRates(inGroups('clicks'), inGroups('conversions'));
  if (!shrunk) return null;
  const { rates } = shrunk;
  const column = (of: 'clicks' | 'conversions' | 'needed') => Float64Array.from(rows, (row) => row[of]);
  const texts = expectOfTexts(
    spoken.length,
    {
      textOf: Uint32Array.from(rows, ({ text }) => text),
      adGroupOf: Uint32Array.from(rows, ({ g }) => g),
      ...{ clicks: column('clicks'), conversions: column('conversions'), needed: column('needed') },
    },
    rates,
  );
  return {
    ...judgeNgrams(buildTermTable(spoken.map((term) => TEXTS[term]!)), texts, 3, 1),
    of(ngram: string) {
      const held = rows.filter(({ term }) => holds(term, ngram));
      const needed = held.filter((row) => !Number.isNaN(row.needed));
      return {
        expected: held.reduce((sum, { clicks, g }) => sum + clicks * rates[g]!, 0),
        conversions: held.reduce((sum, row) => sum + row.conversions, 0),
        needed: needed.length === 0 ? NaN : needed.reduce((sum, row) => sum + row.needed, 0),
      };
    },
  };
}

const holds = (term: number, ngram: string) => ` ${TEXTS[term]} `.includes(` ${ngram} `);

/** What holds “free” or “jobs” seldom converts. */
const aFact = fc
  .record({
    ...{ term: fc.nat(TEXTS.length - 1), day: fc.integer({ min: -20, max: 28 }), adGroup: fc.nat(3) },
    ...{ clicks: fc.nat(90), costMicros: fc.nat(900), late: fc.oneof(fc.constant(0), fc.nat(20)) },
    conversions: fc.oneof({ weight: 8, arbitrary: fc.nat(19) }, fc.constant(NaN)),
  })
  .map(({ late, conversions, ...fact }) => {
    const isBad = /free|jobs/.test(TEXTS[fact.term] ?? '');
    const brought = isBad ? Math.max(0, conversions - 18) : conversions;
    return factOf(fact.term, fact.day, { ...fact, conversions: brought, knownFrom: fact.day + late });
  });

test('each week is fitted as plain sums of what was known then come to', () => {
  fc.assert(
    fc.property(fc.array(aFact, { minLength: 1, maxLength: 60 }), (facts) => {
      const { weeks } = fitWeeks(columnsOf(facts), EVENINGS, GROUND);
      for (const { evening, words } of weeks) {
        const plain = plainFit(facts, evening);
        expect(words.map(({ ngram }) => ngram).sort()).toEqual(plain.map(({ ngram }) => ngram).sort());
        for (const { ngram, probability } of words)
          expect(probability).toBeCloseTo(plain.find((one) => one.ngram === ngram)!.probability, 6);
      }
    }),
  );
});

test('a trial is what a plain replay of its weeks comes to', () => {
  const aRule = fc.record({
    when: fc.array(
      fc.record({
        ...{ of: fc.constantFrom(...MEASURES), is: fc.constantFrom('at least' as const, 'at most' as const) },
        value: fc.nat(100),
      }),
      { minLength: 1, maxLength: 2 },
    ),
    lookBack: fc.record({ days: fc.integer({ min: 1, max: 30 }), lagDays: fc.nat(4) }),
    adGroups: fc.option(
      fc.uniqueArray(fc.nat(3)).map((ids) => new Set(ids)),
      { freq: 2 },
    ),
    ...{ level: fc.constantFrom(0.8, 0.95), words: fc.constant(null) },
  });
  fc.assert(
    fc.property(fc.array(aFact, { minLength: 1, maxLength: 60 }), aRule, (facts, one) => {
      const ground = { ...GROUND, judgesOf: () => () => JUDGE };
      const tried = tryWords(columnsOf(facts), [one], EVENINGS, ground);
      const { ngrams, trials, weeks } = tried;
      expect(tryWords(columnsOf(facts), [one], EVENINGS, { ...ground, weeks })).toEqual(tried);
      const got = trials[0]!.stopped.map(({ termId, day, savedMicros, lostConversions }) => ({
        ...{ ngram: ngrams[termId]!, day, savedMicros, lostConversions },
      }));
      expect(got).toEqual(replay(facts, one).sort((a, b) => (a.ngram < b.ngram ? -1 : 1)));
    }),
  );
});

function replay(facts: readonly Fact[], { when, lookBack, adGroups, level }: TriedWords) {
  const own = facts.filter(
    ({ term, adGroup }) => TEXTS[term] !== null && (!adGroups || adGroups.has(adGroup)),
  );
  const sumsOf = (some: readonly Fact[]) =>
    Object.fromEntries(
      MEASURES.map((of) => {
        const known = some.map((fact) => fact[of]).filter((value) => !Number.isNaN(value));
        return [of, known.length === 0 ? NaN : known.reduce((all, value) => all + value, 0)];
      }),
    ) as Sums;
  const stops: { ngram: string; day: number }[] = [];
  for (let evening = EVENINGS.from; evening <= EVENINGS.to; evening += 7) {
    const offered = withoutParts(plainFit(facts, evening), level).filter((word) => word.probability >= level);
    const last = evening - lookBack.lagDays;
    for (const { ngram } of offered.sort((a, b) => (a.ngram < b.ngram ? -1 : 1))) {
      const seen = own.filter(
        ({ term, day, knownFrom }) =>
          holds(term, ngram) && day <= last && day > last - lookBack.days && knownFrom <= evening,
      );
      const isMet = when.every((one) => one.of !== 'age' && meets(one, sumsOf(seen), JUDGE, lookBack.days));
      const isNew = stops.every((stop) => stop.ngram !== ngram);
      if (isNew && seen.length > 0 && isMet) stops.push({ ngram, day: evening });
    }
  }
  const isStopped = new Set<number>();
  return stops.map(({ ngram, day: evening }) => {
    const terms = [...TEXTS.keys()].filter(
      (term) => TEXTS[term] && holds(term, ngram) && !isStopped.has(term),
    );
    for (const term of terms) isStopped.add(term);
    const brought = sumsOf(own.filter(({ term, day }) => terms.includes(term) && day > evening));
    const [savedMicros, lostConversions] = [brought.costMicros || 0, brought.conversions || 0];
    return { ngram, day: evening, savedMicros, lostConversions };
  });
}
