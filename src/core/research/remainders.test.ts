import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { remainder, stemOf, words } from '../text';
import { findRemainders, proposeStems, stemTexts } from './index';

const found = (texts: readonly string[], stems: readonly string[], struck?: readonly string[]) => {
  const { texts: left, ideasOf, bare } = findRemainders(stemTexts(texts), stems, struck);
  return { remainders: left.map((text, i) => [text, [...ideasOf(i)]]), bare };
};

describe('remainders', () => {
  test('are read in place of the ideas, and forms of a word count together', () => {
    expect(
      found(
        [
          'kiln salary',
          'potter salary uk',
          'salaries of potters',
          'potters near me',
          'pottery kiln near me',
          'kilns',
        ],
        ['kiln', 'potter', 'pottery'],
        ['uk'],
      ),
    ).toEqual({
      remainders: [
        ['salary', [0, 1, 2]],
        ['near me', [3, 4]],
        ['salaries of', [2]],
      ],
      bare: [5],
    });
  });

  test('say in which forms they are written, the most frequent first', () => {
    const { texts, formsOf, ideasOf } = findRemainders(
      stemTexts(['loom plans', 'loom plan', 'free loom plans']),
      ['loom'],
    );
    expect([texts[0], formsOf(0), [...ideasOf(0)]]).toEqual(['plans', ['plans', 'plan'], [0, 1, 2]]);
  });

  test('a stem of several words is taken out where it is written as one, too', () => {
    expect(found(['tablelooms used', 'table loom used'], ['table loom'])).toEqual({
      remainders: [['used', [0, 1]]],
      bare: [],
    });
  });

  test('a struck phrase goes only where it stands whole', () => {
    expect(found(['loom north dale', 'loom dale north'], ['loom'], ['north dale'])).toEqual({
      remainders: [['dale north', [1]]],
      bare: [0],
    });
  });

  test('without ideas, stems or words there is nothing to say', () => {
    expect(found([], ['loom'])).toEqual({ remainders: [], bare: [] });
    expect(found(['', '???'], [])).toEqual({ remainders: [], bare: [0, 1] });
    expect(found(['loom'], ['', '–'])).toEqual({ remainders: [['loom', [0]]], bare: [] });
  });

  const word = fc.constantFrom('loom', 'looms', 'plan', 'plans', 'free', 'me', 'near', 'yarn', 'dyed', 'dye');
  const text = fc.array(word, { maxLength: 6 }).map((all) => all.join(' '));
  const stemsOf = (piece: string) => words(piece).map(stemOf).join(' ');
  const holds = (pieces: readonly string[], key: string) =>
    pieces.some((piece) => ` ${stemsOf(piece)} `.includes(` ${key} `));

  test('are what the readable rule leaves, each with all that hold it', () => {
    fc.assert(
      fc.property(fc.array(text, { maxLength: 12 }), fc.array(word, { maxLength: 3 }), (texts, stems) => {
        const { texts: left, counts, ideasOf, formsOf, bare } = findRemainders(stemTexts(texts), stems);
        const pieces = texts.map((of) => remainder(of, stems));
        expect(new Set(left.map(stemsOf))).toEqual(new Set(pieces.flat().map(stemsOf)));
        expect([...counts]).toEqual([...counts].sort((a, b) => b - a));
        for (const [i, of] of left.entries()) {
          const holding = [...texts.keys()].filter((idea) => holds(pieces[idea]!, stemsOf(of)));
          expect([...ideasOf(i)]).toEqual(holding);
          expect(counts[i]).toBe(holding.length);
          expect(formsOf(i)[0]).toBe(of);
          expect(new Set(formsOf(i).map(stemsOf))).toEqual(new Set([stemsOf(of)]));
        }
        expect(bare).toEqual([...texts.keys()].filter((i) => pieces[i]!.length === 0));
      }),
    );
  });
});

describe('stems are proposed', () => {
  const propose = (texts: readonly string[], without: readonly string[] = []) =>
    proposeStems(stemTexts(texts), without).map(({ text, ideas }) => [text, ideas]);

  test('by the ideas that no earlier one holds', () => {
    const kilns = Array.from({ length: 30 }, (_, i) => `kiln ${i}`);
    const potters = Array.from({ length: 10 }, (_, i) => `potters wheel ${i}a`);
    expect(propose([...kilns, ...potters, 'kiln for a wheel'])).toEqual([
      ['kiln', 31],
      ['potters', 10],
    ]);
  });

  test('never of words that are none, and not of rare ones', () => {
    expect(propose(['the kiln', 'the loom', 'the wheel'], ['the']).map(([text]) => text)).toEqual([
      'kiln',
      'loom',
      'wheel',
    ]);
    expect(propose([...Array.from({ length: 40 }, () => 'kiln'), 'rare'])).toEqual([['kiln', 40]]);
    expect(propose([])).toEqual([]);
    expect(propose(['???'])).toEqual([]);
  });
});
