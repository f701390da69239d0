import fc from 'fast-check';
import { expect, test } from 'vitest';
import { stops } from '../../gate';
import { aNegative, aText } from '../../gate/testing';
import { buildTermTable, matchingTexts } from './term-table';

test('the texts a negative stops, found by posting lists, are those the readable rule names', () => {
  fc.assert(
    fc.property(fc.array(aText(), { maxLength: 15 }), aNegative(), (texts, negative) => {
      const expected = texts.flatMap((text, i) => (stops(negative, text) ? [i] : []));
      expect(matchingTexts(buildTermTable(texts), negative)).toEqual(expected);
    }),
    { numRuns: 2_000 },
  );
});

test('texts without a word keep their index', () => {
  expect(matchingTexts(buildTermTable(['???', 'hive']), { text: 'hive', match: 'exact' })).toEqual([1]);
});
