import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { normalise } from '../../text';
import { aText } from '../../gate/testing';
import { shrinkRates } from './expected';
import { fitFactorSpread } from './factor-spread';
import { probabilityAtFault, type WordAtFault } from './judge-ngrams';
import { offerWords, withoutParts, type OfferQuestion } from './offer-words';
import { whereItPays } from './where-it-pays';
import { findWordsAtFault, type FaultRow } from './words-at-fault';

const row = (
  text: string,
  clicks: number | null,
  conversions: number | null,
  adGroupId = 'g',
  costMicros?: number,
) => ({
  ...{ text, adGroupId, clicks, conversions },
  ...(costMicros !== undefined && { costMicros }),
});

describe('a word at fault', () => {
  test('is the one that brings its terms below what their ad group brings', () => {
    const words = findWordsAtFault([
      ...Array.from({ length: 12 }, (_, i) => row(`hive kit ${i}`, 40, 2)),
      ...Array.from({ length: 12 }, (_, i) => row(`hive jobs ${i}`, 40, 0)),
    ]);
    const of = (ngram: string) => words.find((word) => word.ngram === ngram)!;
    expect(of('jobs')).toMatchObject({ terms: 12, clicks: 480, conversions: 0 });
    expect(of('jobs').expected).toBeCloseTo(480 * 0.025, 6); // a single ad group has its own rate
    expect(of('jobs').probability).toBeGreaterThan(0.95);
    expect(of('kit').probability).toBeLessThan(0.05);
    expect(of('hive').probability).toBeLessThan(0.05); // in every term: it can't be worse than they are
    expect(words[0]!.expected).toBeGreaterThanOrEqual(of('hive jobs').expected);
  });

  test('is held against the ad groups in which it ran, not against all', () => {
    const words = findWordsAtFault(
      [
        ...Array.from({ length: 6 }, (_, i) => row(`a${i}`, 500, 25, 'rich')),
        ...Array.from({ length: 6 }, (_, i) => row(`b${i}`, 500, 1, 'poor')),
        row('word rich', 100, 2, 'rich'),
        row('word poor', 100, 2, 'poor'),
      ],
      { longest: 1 },
    );
    const of = (ngram: string) => words.find((word) => word.ngram === ngram)!;
    expect(of('rich').expected).toBeGreaterThan(10 * of('poor').expected);
    expect(of('rich').probability).toBeGreaterThan(of('poor').probability);
  });

  test('with a target, is never sought among words that reach it', () => {
    const rows = (cost: number) => [
      ...Array.from({ length: 20 }, (_, i) => row(`kit ${i}`, 100, 5, 'g', 100)),
      ...Array.from({ length: 20 }, (_, i) => row(`jobs j${i}`, 100, 0, 'g', 100)),
      row('cheap thing', 400, 2, 'g', cost),
    ];
    const cheap = (cost: number) =>
      findWordsAtFault(rows(cost), { longest: 1, targetMicros: 100 }).find((w) => w.ngram === 'cheap')!;
    expect(cheap(10).probability).toBeLessThan(0.05); // a tenth of a conversion is enough, and it brought two
    expect(cheap(100_000).probability).toBeGreaterThan(0.5); // dear: half of its ad group is the limit
  });

  test('nobody is judged where nothing converted', () => {
    expect(findWordsAtFault([row('hive jobs', 100, 0), row('hive', 50, 0)])).toEqual([]);
    expect(findWordsAtFault([])).toEqual([]);
  });

  test('rows that say nothing are left out', () => {
    const rows = [row('hive kit', 50, 5), row('hive jobs', 50, 0)];
    const silent = [row('hive maps', null, 1), row('hive cards', 9, null), row('???', 9, 0)];
    expect(findWordsAtFault([...rows, ...silent])).toEqual(findWordsAtFault(rows));
  });

  test('a term without a click counts among the terms, and judges nothing', () => {
    const rows = [row('hive kit', 50, 5), row('hive jobs', 50, 0)];
    const of = (words: WordAtFault[]) => words.find(({ ngram }) => ngram === 'hive')!;
    const [with_, without] = [findWordsAtFault([...rows, row('hive none', 0, 2)]), findWordsAtFault(rows)];
    expect(of(with_)).toEqual({ ...of(without), terms: 3 });
    expect(with_.some(({ ngram }) => ngram === 'none')).toBe(false);
  });

  test('conversions count up to the clicks of the row', () => {
    const [hive] = findWordsAtFault([row('hive', 4, 9)], { longest: 1 });
    expect(hive).toMatchObject({ clicks: 4, conversions: 4 });
  });

  test('a length outside 1..3 is a mistake', () => {
    expect(() => findWordsAtFault([], { longest: 4 as 3 })).toThrow('longest must be 1..3 words; got 4');
  });

  test('agrees with the rule, word for word', () => {
    const figures = fc.record({
      clicks: fc.option(fc.nat(30), { nil: null, freq: 12 }),
      conversions: fc.option(
        fc.double({ min: 0, max: 3, noNaN: true }).map((c) => Math.round(c * 2) / 2),
        {
          ...{ nil: null, freq: 12 },
        },
      ),
      costMicros: fc.nat(900),
    });
    const fcRow = fc
      .tuple(aText(5), fc.constantFrom('g1', 'g2', 'g3', 'g4', 'g5', 'g6'), figures)
      .map(([text, adGroupId, of]) => ({ text, adGroupId, ...of }));
    const options = fc.record({
      longest: fc.constantFrom<1 | 2 | 3>(1, 2, 3),
      targetMicros: fc.option(fc.integer({ min: 1, max: 4_000 }), { nil: undefined }),
    });
    fc.assert(
      fc.property(fc.array(fcRow, { maxLength: 25 }), options, (rows, wanted) => {
        const found = findWordsAtFault(rows, wanted);
        const plain = plainly(rows, wanted);
        const byText = (words: readonly WordAtFault[]) =>
          [...words].sort((a, b) => (a.ngram < b.ngram ? -1 : 1));
        expect(byText(found).map(({ ngram, terms }) => [ngram, terms])).toEqual(
          byText(plain).map(({ ngram, terms }) => [ngram, terms]),
        );
        byText(found).forEach((word, i) => {
          const same = byText(plain)[i]!;
          for (const figure of ['clicks', 'conversions', 'expected', 'probability'] as const)
            expect(word[figure]).toBeCloseTo(same[figure], 9);
        });
        expect(found.every((word, i) => i === 0 || word.probability <= found[i - 1]!.probability)).toBe(true);
      }),
      { numRuns: 400 },
    );
  });
});

/** Rules 7.12 by plain Maps; the two fits are held against looking through all values below. */
function plainly(
  given: readonly FaultRow[],
  { longest, targetMicros }: { longest: number; targetMicros?: number | undefined },
): WordAtFault[] {
  const rows = new Map<string, { text: string; group: string; n: number; c: number; cost: number }>();
  for (const { text, adGroupId, clicks, conversions, costMicros } of given) {
    const key = normalise(text);
    if (key === '' || clicks === null || conversions === null) continue;
    const at = rows.get(`${key}|${adGroupId}`) ?? { text: key, group: adGroupId, n: 0, c: 0, cost: 0 };
    rows.set(`${key}|${adGroupId}`, at);
    at.n += clicks;
    at.c += conversions;
    at.cost += costMicros ?? 0;
  }
  const known = [...rows.values()].map((r) => ({ ...r, c: Math.min(r.c, r.n) }));
  const groups = [...new Set(known.map(({ group }) => group))];
  const of = (group: string, figure: 'n' | 'c') =>
    known.filter((r) => r.group === group).reduce((sum, r) => sum + r[figure], 0);
  const shrunk = shrinkRates(
    Float64Array.from(groups, (group) => of(group, 'n')),
    Float64Array.from(groups, (group) => of(group, 'c')),
  );
  if (!shrunk) return [];
  const rate = (group: string) => shrunk.rates[groups.indexOf(group)]!;
  const ngramsOf = (text: string) => {
    const words = text.split(' ');
    return new Set(
      words.flatMap((_, at) =>
        [1, 2, 3]
          .slice(0, longest)
          .flatMap((n) => (at + n <= words.length ? [words.slice(at, at + n).join(' ')] : [])),
      ),
    );
  };
  const sums = new Map<string, { texts: Set<string>; n: number; c: number; e: number; cost: number }>();
  for (const { text, group, n, c, cost } of known)
    for (const ngram of ngramsOf(text)) {
      const sum = sums.get(ngram) ?? { texts: new Set(), n: 0, c: 0, e: 0, cost: 0 };
      sums.set(ngram, sum);
      sum.texts.add(text);
      sum.n += n;
      sum.c += c;
      sum.e += n * rate(group);
      sum.cost += cost;
    }
  for (const [ngram, { n }] of sums) if (n === 0) sums.delete(ngram);
  const spread = fitFactorSpread(
    [...sums]
      .filter(([ngram]) => !ngram.includes(' '))
      .map(([, { e, c }]) => ({ expected: e, conversions: c })),
  );
  return [...sums].map(([ngram, { texts, n, c, e, cost }]) => ({
    ...{ ngram, terms: texts.size, clicks: n, conversions: c, expected: e },
    probability: probabilityAtFault(
      { conversions: c, expected: e, needed: targetMicros === undefined ? NaN : cost / targetMicros },
      spread,
    ),
  }));
}

describe('the rates of ad groups', () => {
  test.each([
    {
      name: 'few ad groups: strength 100 about their common rate',
      n: [100, 300],
      c: [10, 10],
      expected: [0.075, 0.0375],
    },
    { name: 'one without a click has the common rate', n: [0, 400], c: [0, 20], expected: [0.05, 0.05] },
    { name: 'every click converted', n: [10, 10], c: [10, 10], expected: [1, 1] },
  ])('$name', ({ n, c, expected }) => {
    const { rates } = shrinkRates(Float64Array.from(n), Float64Array.from(c))!;
    expected.forEach((rate, g) => expect(rates[g]).toBeCloseTo(rate, 12));
  });

  test('many ad groups that differ keep their own rates, and those that are alike share one', () => {
    const n = Float64Array.from({ length: 12 }, () => 2_000);
    const unlike = shrinkRates(
      n,
      n.map((_, g) => (g % 2 ? 200 : 20)),
    )!;
    expect(unlike.rates[0]).toBeCloseTo(0.01, 2);
    expect(unlike.rates[1]).toBeCloseTo(0.1, 2);
    const alike = shrinkRates(
      n,
      n.map((_, g) => 100 + (g % 2)),
    )!;
    expect(alike.strength).toBeCloseTo(10_000, 3);
    expect(alike.rates[0]).toBeCloseTo(alike.rates[1]!, 3);
  });
});

describe('the spread of factors', () => {
  const word = fc.record({
    expected: fc.double({ min: 0.01, max: 40, noNaN: true }),
    conversions: fc.oneof(fc.nat(20), fc.double({ min: 0, max: 9, noNaN: true })),
  });
  /** Γ(a + c) / Γ(a) · (a/(a + E))^a · (1/(a + E))^c, with the integral of the digamma as its logarithm. */
  const likelihood = (of: readonly { expected: number; conversions: number }[], a: number) =>
    of.reduce((sum, { expected: e, conversions: c }) => {
      let risen = 0;
      const whole = Math.floor(c);
      for (let j = 0; j < whole; j++) risen += Math.log(a + (c - whole) + j);
      const rest = c - whole > 0 ? lnGammaRatio(a, c - whole) : 0;
      return sum + risen + rest + a * Math.log(a / (a + e)) - c * Math.log(a + e);
    }, 0);
  /** log Γ(x + f) − log Γ(x), by going up to where Stirling's rule is exact. */
  function lnGammaRatio(x: number, f: number): number {
    let sum = 0;
    let at = x;
    for (; at < 60; at++) sum += Math.log(at) - Math.log(at + f);
    const stirling = (z: number) => (z - 0.5) * Math.log(z) - z + 1 / (12 * z) - 1 / (360 * z ** 3);
    return sum + stirling(at + f) - stirling(at);
  }

  test('is at least as likely as any other that looking finds, within 0.1 and 100', () => {
    fc.assert(
      fc.property(fc.array(word, { minLength: 1, maxLength: 30 }), (of) => {
        const a = fitFactorSpread(of);
        expect(a).toBeGreaterThanOrEqual(0.1 - 1e-12);
        expect(a).toBeLessThanOrEqual(100 + 1e-9);
        let best = -Infinity;
        for (let i = 0; i <= 120; i++) best = Math.max(best, likelihood(of, 0.1 * 1_000 ** (i / 120)));
        expect(likelihood(of, a)).toBeGreaterThan(best - 1e-6);
      }),
      { numRuns: 60 },
    );
  });

  test('words that bring what is expected of them are alike; words that bring all or nothing are not', () => {
    const words = (of: (i: number) => number) =>
      Array.from({ length: 60 }, (_, i) => ({ expected: 20, conversions: of(i) }));
    expect(fitFactorSpread(words(() => 20))).toBeCloseTo(100, 6);
    expect(fitFactorSpread(words((i) => (i % 2) * 40))).toBeLessThan(0.6);
  });
});

describe('a word pays in a campaign', () => {
  const part = (campaign: string, expected: number, conversions: number) => ({
    ...{ campaign, expected, conversions, needed: NaN },
  });

  test('where it brought something and is not surely at fault; rows of a campaign are summed', () => {
    const rows = [part('good', 1, 1), part('good', 1, 1), part('bad', 12, 0), part('one by chance', 20, 1)];
    expect(whereItPays(rows, 1, 0.8)).toEqual(new Set(['good']));
    expect(whereItPays(rows, 1, 1)).toEqual(new Set(['good', 'one by chance']));
  });

  test('not where the target asks for more than it brought', () => {
    expect(whereItPays([{ ...part('c', 4, 1), needed: 0.1 }], 1, 0.8)).toEqual(new Set(['c']));
    expect(whereItPays([], 1, 0.8)).toEqual(new Set());
  });
});

describe('what is offered', () => {
  const judged = (ngram: string, probability: number, expected = 5): WordAtFault => ({
    ...{ ngram, probability, expected, terms: 3, clicks: 90, conversions: 0 },
  });
  const words = [
    judged('jobs', 0.97),
    judged('hive jobs', 0.9),
    judged('how to', 0.85),
    judged('to', 0.6),
    judged('rare', 0.9, 0.4),
    judged('to build', 0.81),
    judged('to build a', 0.95),
  ];

  const offer = (over: Partial<OfferQuestion> = {}) =>
    offerWords({
      ...{ words, level: 0.8, brandWords: [], mayStand: () => true, termsAround: () => [] },
      ...{ keywordsStoppedBy: () => [], protectedBy: () => [] },
      ...over,
    });
  const offered = (over?: Partial<OfferQuestion>) => offer(over).offered.map(({ word }) => word.ngram);

  test('the shortest that reach the level, with at least one conversion expected', () => {
    expect(offered()).toEqual(['jobs', 'how to', 'to build']);
    expect(offered({ level: 0.5 })).toEqual(['jobs', 'to']);
    expect(offer().offered[0]!.negatives).toEqual([{ text: 'jobs', match: 'phrase' }]);
  });

  test('what holds a brand word, or would stop a live keyword, is not; and it is said why', () => {
    const stopped = ({ text }: { text: string }) => (text === 'how to' ? ['how to keep bees'] : []);
    const { offered: rest, barred } = offer({ brandWords: ['jobs'], keywordsStoppedBy: stopped });
    expect(rest.map(({ word }) => word.ngram)).toEqual(['to build']);
    expect(barred.map(({ word, by, names }) => [word.ngram, by, names])).toEqual([
      ['jobs', 'brand word', ['jobs']],
      ['how to', 'live keyword', ['how to keep bees']],
    ]);
  });

  test('around a protected term, longer negatives that hold the word and leave the term open', () => {
    const [jobs] = offer({
      protectedBy: ({ text }) => (text === 'jobs' ? ['bee jobs'] : []),
      termsAround: () => [
        { text: 'bee jobs', clicks: 9 },
        { text: 'hive jobs near', clicks: 5 },
        { text: 'old hive jobs', clicks: 4 },
        { text: 'jobs', clicks: 1 },
      ],
    }).offered;
    expect(jobs!.leavesOpen).toEqual(['bee jobs']);
    expect(jobs!.negatives).toEqual([
      { text: 'jobs', match: 'exact' },
      { text: 'hive jobs', match: 'phrase' },
    ]);
  });

  test('what only protected terms hold is barred by them', () => {
    const { offered: none, barred } = offer({
      words: [words[0]!],
      protectedBy: () => ['bee jobs'],
      termsAround: () => [{ text: 'bee jobs', clicks: 9 }],
    });
    expect(none).toEqual([]);
    expect(barred).toEqual([{ word: words[0], by: 'protected term', names: ['bee jobs'] }]);
  });

  test('in a list of all, those stand aside of which a part reaches the level', () => {
    expect(withoutParts(words, 0.8).map(({ ngram }) => ngram)).toEqual([
      'jobs',
      'how to',
      'to',
      'rare',
      'to build',
    ]);
  });
});
