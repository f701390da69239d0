import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { normalise } from '../../text';
import { aText } from '../../gate/testing';
import { shrinkRates } from './expected';
import { fitFactorSpread } from './factor-spread';
import { isSurelyFine, probabilityAtFault, type WordAtFault } from './judge-ngrams';
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

test('what is surely fine is at fault with less than a half, whatever it needs', () => {
  const some = fc.double({ min: 0.01, max: 500, noNaN: true });
  const needed = fc.oneof(fc.constant(NaN), some);
  fc.assert(
    fc.property(some, some, some, needed, (conversions, expected, a, needs) => {
      fc.pre(isSurelyFine(conversions, expected, a));
      expect(probabilityAtFault({ conversions, expected, needed: needs }, a)).toBeLessThan(0.5);
    }),
  );
});
