import fc from 'fast-check';
import { expect, test } from 'vitest';
import { stops, type MatchType } from '../gate';
import { compileVocabulary } from '../text';
import { buildTermTable } from './texts/term-table';
import { offerVariants } from './variant-offers';

const offersFor = (text: string, match: MatchType, terms: Record<string, number>) => {
  const texts = Object.keys(terms);
  const table = buildTermTable(texts);
  return offerVariants({ text, match }, table, Object.values(terms), compileVocabulary(texts)).map(
    ({ terms: at, ...offer }) => ({ ...offer, terms: at.map((t) => texts[t]!) }),
  );
};

test('each offer says which terms it would stop beyond the negative, and their cost, costliest first', () => {
  const terms = {
    'old smoker': 5,
    'old smokers': 3,
    'smokers or smoker': 9,
    'old smoekr': 4,
    'smoekr smokers': 2,
  };
  expect(offersFor('smoker', 'broad', terms)).toEqual([
    { text: 'smoekr', how: 'misspelt', terms: ['old smoekr', 'smoekr smokers'], costMicros: 6 },
    { text: 'smokers', how: 'plural', terms: ['old smokers', 'smoekr smokers'], costMicros: 5 },
  ]);
});

test('the match type is the negative’s own', () => {
  const terms = { 'bee films': 1, 'big bee films': 2 };
  expect(offersFor('bee film', 'exact', terms).map((o) => o.terms)).toEqual([['bee films']]);
  expect(offersFor('bee film', 'phrase', terms).map((o) => o.terms)).toEqual([
    ['bee films', 'big bee films'],
  ]);
});

test('a variant of which no term holds all words is not offered', () => {
  expect(offersFor('red film', 'broad', { 'bee films': 1, 'red film': 2 })).toEqual([]);
});

test('an unknown cost counts as nothing', () => {
  expect(offersFor('film', 'broad', { films: NaN })).toMatchObject([{ costMicros: 0 }]);
});

test('whatever is offered is stopped by the variant and not by the negative, by the readable rule', () => {
  const word = fc.constantFrom('film', 'films', 'filming', 'flim', 'bee', 'bees', 'café', 'cafe', 'beefilm');
  const text = fc.array(word, { minLength: 1, maxLength: 4 }).map((of) => of.join(' '));
  const match = fc.constantFrom<MatchType>('broad', 'phrase', 'exact');
  fc.assert(
    fc.property(fc.uniqueArray(text, { maxLength: 12 }), text, match, (texts, negative, by) => {
      const offers = offersFor(negative, by, Object.fromEntries(texts.map((t, i) => [t, i])));
      for (const offer of offers) {
        const expected = texts.filter(
          (t) => stops({ text: offer.text, match: by }, t) && !stops({ text: negative, match: by }, t),
        );
        expect(offer.terms).toEqual(expected);
        expect(offer.costMicros).toBe(expected.reduce((sum, t) => sum + texts.indexOf(t), 0));
      }
    }),
    { numRuns: 1_000 },
  );
});
