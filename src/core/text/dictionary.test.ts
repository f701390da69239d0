import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { createDictionary, type WordDictionary } from './dictionary';
import { words } from './normalise';

const coded = (dictionary: WordDictionary, count: number) => [...dictionary.coded.subarray(0, count)];

describe('the dictionary', () => {
  test('gives each word one integer, and the word back', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'grapheme', maxLength: 12 }), { maxLength: 40 }), (texts) => {
        const dictionary = createDictionary();
        const plain = new Map<string, number>();
        for (const text of texts) {
          const expected = words(text).map((word) => {
            if (!plain.has(word)) plain.set(word, plain.size);
            return plain.get(word)!;
          });
          expect(coded(dictionary, dictionary.internAll(text))).toEqual(expected);
        }
        expect(dictionary.size).toBe(plain.size);
        for (const [word, id] of plain) {
          expect(dictionary.idOf(word)).toBe(id);
          expect(dictionary.intern(word)).toBe(id);
          expect(dictionary.wordOf(id)).toBe(word);
        }
      }),
      { numRuns: 1_000 },
    );
  });

  test('tells apart words that begin alike, long or short, plain or not', () => {
    const word = fc.oneof(
      fc.string({ unit: fc.constantFrom(...'ab0&'), minLength: 1, maxLength: 4 }),
      fc.string({ unit: fc.constantFrom(...'aé'), minLength: 9, maxLength: 12 }),
    );
    fc.assert(
      fc.property(fc.array(fc.array(word, { maxLength: 6 }), { maxLength: 20 }), (texts) => {
        const dictionary = createDictionary();
        const known = new Map<string, number>();
        for (const of of texts) {
          for (const one of of) if (!known.has(one)) known.set(one, known.size);
          const count = dictionary.internAll(of.join(' '));
          expect(coded(dictionary, count)).toEqual(of.map((one) => known.get(one)));
        }
      }),
      { numRuns: 1_000 },
    );
  });

  test('keeps its words as it grows', () => {
    const dictionary = createDictionary();
    const all = Array.from({ length: 40_000 }, (_, i) => `w${i * 7919}`);
    all.forEach((word, i) => expect(dictionary.intern(word)).toBe(i));
    all.forEach((word, i) => {
      if (dictionary.idOf(word) !== i || dictionary.wordOf(i) !== word) throw new Error(word);
    });
    expect(coded(dictionary, dictionary.code(all.slice(0, 500).join(' ')))).toEqual(
      all.slice(0, 500).map((_, i) => i),
    );
  });

  test('words never seen are −1 when they are only looked up', () => {
    const dictionary = createDictionary();
    dictionary.internAll('bee hive');
    expect(coded(dictionary, dictionary.code('Hive for a Bee'))).toEqual([1, -1, -1, 0]);
    expect(dictionary.size).toBe(2);
    expect([dictionary.code(''), dictionary.code('?!')]).toEqual([0, 0]);
    expect(dictionary.idOf('constructor')).toBeUndefined();
    expect(() => dictionary.wordOf(2)).toThrow('0..1; got 2');
  });

  test('takes any text for a word', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'binary', maxLength: 14 })), (texts) => {
        const dictionary = createDictionary();
        const distinct = [...new Set(texts)];
        for (const text of texts) dictionary.intern(text);
        expect(distinct.map((_, id) => dictionary.wordOf(id))).toEqual(distinct);
        expect(distinct.map((text) => dictionary.idOf(text))).toEqual([...distinct.keys()]);
      }),
      { numRuns: 1_000 },
    );
  });

  test('takes a word of any length', () => {
    const dictionary = createDictionary();
    const long = 'x'.repeat(100_000);
    expect(dictionary.intern(long)).toBe(0);
    expect(dictionary.idOf(long)).toBe(0);
  });
});
