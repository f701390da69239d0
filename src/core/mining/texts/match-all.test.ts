import fc from 'fast-check';
import { expect, test } from 'vitest';
import { MATCH_TYPES, stops } from '../../gate';
import { aNegative, aText, aTextOfSharedBits, MANY_WORDS } from '../../gate/testing';
import { matchAll } from './match-all';
import { buildTermTable } from './term-table';

/** text and negative of each visit, in order */
function visits(texts: readonly string[], negatives: Parameters<typeof matchAll>[1]): string[] {
  const met: string[] = [];
  matchAll(buildTermTable(texts), negatives, (t, n) => met.push(`${t} ${n}`));
  return met.sort();
}

/** By the readable rule. */
function plainVisits(texts: readonly string[], negatives: Parameters<typeof matchAll>[1]): string[] {
  return texts
    .flatMap((text, t) => negatives.flatMap((negative, n) => (stops(negative, text) ? [`${t} ${n}`] : [])))
    .sort();
}

test('each text meets the negatives that the readable rule names, each once', () => {
  fc.assert(
    fc.property(
      fc.array(aText(), { maxLength: 12 }),
      fc.array(aNegative(), { maxLength: 12 }),
      (texts, negatives) => {
        expect(visits(texts, negatives)).toEqual(plainVisits(texts, negatives));
      },
    ),
    { numRuns: 2_000 },
  );
});

test('the same where words share bits', () => {
  const negative = fc.record({ text: aTextOfSharedBits(3), match: fc.constantFrom(...MATCH_TYPES) });
  fc.assert(
    fc.property(
      fc.array(aTextOfSharedBits(), { maxLength: 6 }),
      fc.array(negative, { maxLength: 6 }),
      (some, negatives) => {
        const texts = [MANY_WORDS.join(' '), ...some];
        expect(visits(texts, negatives)).toEqual(plainVisits(texts, negatives));
      },
    ),
    { numRuns: 1_000 },
  );
});

test('words that repeat, negatives without a word and words that no text holds', () => {
  const texts = ['hive hive', '', 'bee hive bee'];
  expect(
    visits(texts, [
      { text: 'hive hive', match: 'broad' },
      { text: 'hive hive', match: 'phrase' },
      { text: '', match: 'broad' },
      { text: 'hive wasp', match: 'broad' },
      { text: 'bee hive bee', match: 'exact' },
    ]),
  ).toEqual(['0 0', '0 1', '2 0', '2 4']);
});
