import fc from 'fast-check';
import { expect, test } from 'vitest';
import { stops } from '../gate';
import { aNegative, aText } from '../gate/testing';
import { matchAll } from './match-all';
import { buildTermTable } from './term-table';

/** text and negative of each visit, in order */
function visits(texts: readonly string[], negatives: Parameters<typeof matchAll>[1]): string[] {
  const met: string[] = [];
  matchAll(buildTermTable(texts), negatives, (t, n) => met.push(`${t} ${n}`));
  return met.sort();
}

test('each text meets the negatives that the readable rule names, each once', () => {
  fc.assert(
    fc.property(
      fc.array(aText(), { maxLength: 12 }),
      fc.array(aNegative(), { maxLength: 12 }),
      (texts, negatives) => {
        const expected = texts.flatMap((text, t) =>
          negatives.flatMap((negative, n) => (stops(negative, text) ? [`${t} ${n}`] : [])),
        );
        expect(visits(texts, negatives)).toEqual(expected.sort());
      },
    ),
    { numRuns: 2_000 },
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
