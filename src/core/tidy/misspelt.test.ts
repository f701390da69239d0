import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { stops, type NegativeText } from '../gate';
import { buildTermTable } from '../mining';
import { compileVocabulary, words } from '../text';
import { findMisspelt } from './misspelt';

const find = (negatives: NegativeText[], texts: string[]) =>
  findMisspelt(negatives, { table: buildTermTable(texts), vocabulary: compileVocabulary(texts) });
const phrase = (text: string): NegativeText => ({ text, match: 'phrase' });

describe('misspelt negatives', () => {
  const texts = ['bee documentary', 'free bee hive plans', 'café tables', 'bee jobs'];

  test.each([
    ['documentry', 'documentary'],
    ['free documentery', 'free documentary'],
    ['cafe', 'café'],
    ['documentary', null], // occurs
    ['trampoline', null], // nothing is near it
    ['jops', null], // too short to tell
    ['documentry trampoline', null], // the other word is unknown as well
    ['', null],
  ])('“%s” was meant to say %s', (text, meant) => {
    expect(find([phrase(text)], texts)).toEqual([meant]);
  });

  test('stop nothing, and what was meant holds known words alone', () => {
    const letter = fc.constantFrom('a', 'b', 'e');
    const word = fc.array(letter, { minLength: 4, maxLength: 7 }).map((of) => of.join(''));
    const text = fc.array(word, { minLength: 1, maxLength: 3 }).map((of) => of.join(' '));
    const match = fc.constantFrom('broad' as const, 'phrase' as const, 'exact' as const);
    fc.assert(
      fc.property(
        fc.array(fc.record({ text, match })),
        fc.array(text, { maxLength: 12 }),
        (negatives, of) => {
          const known = new Set(of.flatMap(words));
          find(negatives, of).forEach((meant, i) => {
            if (meant === null) return;
            expect(of.some((one) => stops(negatives[i]!, one))).toBe(false);
            expect(words(meant).every((one) => known.has(one))).toBe(true);
            expect(words(negatives[i]!.text).every((one) => known.has(one))).toBe(false);
          });
        },
      ),
    );
  });
});
