import fc from 'fast-check';
import { expect, test } from 'vitest';
import { addFigures, noFigures, spendWithoutReturn, type Figures } from '../../figures';
import { aText } from '../../gate/testing';
import { normalise } from '../../text';
import { countNgrams, countCodedNgrams, type Ngram, type NgramSize } from './ngrams';
import { buildTermTable } from '../texts/term-table';

const terms = [
  { text: 'free hive plans', clicks: 3, costMicros: 30, conversions: 0 },
  { text: 'Free Hive Plans!', clicks: 2, costMicros: 20, conversions: 1 },
  { text: 'hive hive kit', clicks: 5, costMicros: 5, conversions: null },
];

test('a run counts once a distinct term and carries the sums of the terms that hold it', () => {
  const grams = countNgrams(terms, 1);
  expect(grams.map((g) => [g.ngram, g.terms, g.clicks, g.costMicros, g.conversions])).toEqual([
    ['hive', 2, 10, 55, 1],
    ['free', 1, 5, 50, 1],
    ['plans', 1, 5, 50, 1],
    ['kit', 1, 5, 5, null],
  ]);
});

test('longer runs follow the order of the words', () => {
  expect(countNgrams(terms, 2).map((g) => g.ngram)).toEqual([
    'free hive',
    'hive plans',
    'hive hive',
    'hive kit',
  ]);
  expect(countNgrams(terms, 3).map((g) => g.ngram)).toEqual(['free hive plans', 'hive hive kit']);
  expect(countNgrams(terms, 4)).toEqual([]);
});

test('terms without a word hold no run, and a size outside 1..5 is a mistake', () => {
  expect(countNgrams([{ text: '???', clicks: 1 }], 1)).toEqual([]);
  expect(() => countNgrams(terms, 6 as 5)).toThrow('n-gram size must be 1..5; got 6');
});

test('only terms that never converted spend without return', () => {
  const [hive, , plans] = countNgrams([...terms, { text: 'old hive', costMicros: 7, conversions: 0 }], 1);
  expect([hive!.ngram, hive!.withoutReturnMicros]).toEqual(['hive', 7]);
  expect([plans!.ngram, plans!.withoutReturnMicros]).toEqual(['plans', 0]);
});

test('the counts are those of a Map of strings', () => {
  const figure = fc.option(fc.nat(5));
  const term = fc.record({ text: aText(7), clicks: figure, costMicros: figure, conversions: figure });
  fc.assert(
    fc.property(fc.array(term, { maxLength: 12 }), fc.constantFrom(1, 2, 3, 4, 5), (drawn, n) => {
      expect(countNgrams(drawn, n as NgramSize)).toEqual(plainly(drawn, n));
    }),
    { numRuns: 1_500 },
  );
});

test('the most of several lengths are those at the head of all of them', () => {
  const term = fc.record({ text: aText(6), costMicros: fc.nat(4), conversions: fc.nat(1) });
  const size = fc.integer({ min: 1, max: 5 });
  fc.assert(
    fc.property(
      fc.array(term, { maxLength: 10 }),
      size,
      size,
      fc.nat(12),
      fc.boolean(),
      (drawn, a, b, most, cost) => {
        const [from, to] = [Math.min(a, b), Math.max(a, b)] as [NgramSize, NgramSize];
        const by = cost ? 'costMicros' : 'withoutReturnMicros';
        const table = buildTermTable(drawn.map((t) => t.text));
        const terms = drawn.map(({ costMicros, conversions }, i) => ({ term: i, costMicros, conversions }));
        const all = countCodedNgrams(table, terms, { from, to, by });
        expect(all.every((gram, i) => i === 0 || gram[by]! <= all[i - 1]![by]!)).toBe(true);
        expect(countCodedNgrams(table, terms, { from, to, by, most })).toEqual(all.slice(0, most));
      },
    ),
    { numRuns: 1_500 },
  );
});

/** Rules 7.5, word for word. */
function plainly(drawn: readonly ({ text: string } & Partial<Figures>)[], n: number): Ngram[] {
  const distinct = new Map<string, Figures>();
  for (const term of drawn) {
    const sum = distinct.get(normalise(term.text)) ?? noFigures();
    addFigures(sum, term);
    distinct.set(normalise(term.text), sum);
  }
  const grams = new Map<string, Ngram>();
  for (const [text, figures] of distinct) {
    const of = text.split(' ');
    const ngrams = new Set(
      of.flatMap((_, at) => (at + n <= of.length ? [of.slice(at, at + n).join(' ')] : [])),
    );
    for (const ngram of ngrams) {
      const gram = grams.get(ngram) ?? { ngram, terms: 0, withoutReturnMicros: 0, ...noFigures() };
      gram.terms += 1;
      gram.withoutReturnMicros += spendWithoutReturn(figures);
      addFigures(gram, figures);
      grams.set(ngram, gram);
    }
  }
  return [...grams.values()].sort(
    (a, b) => (b.costMicros ?? 0) - (a.costMicros ?? 0) || (a.ngram < b.ngram ? -1 : 1),
  );
}
