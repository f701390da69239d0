import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { remainder } from './remainder';
import { stemOf } from './stem';
import { variants } from './variants';
import { compileVocabulary } from './vocabulary';

describe('variants', () => {
  test.each([
    [
      'bee hives',
      ['bee hive kit', 'beehives'],
      [
        ['beehives', 'joined'],
        ['bee hive', 'plural'],
      ],
    ],
    [
      'hive',
      ['hives', 'hiving', 'hived'],
      [
        ['hives', 'plural'],
        ['hiving', 'verb form'],
        ['hived', 'verb form'],
      ],
    ],
    [
      'keeping bees',
      ['keep', 'keeper', 'keeps', 'bee'],
      [
        ['keep bees', 'verb form'],
        ['keeps bees', 'verb form'],
        ['keeping bee', 'plural'],
      ],
    ],
    [
      'stop',
      ['stopped', 'stopping'],
      [
        ['stopped', 'verb form'],
        ['stopping', 'verb form'],
      ],
    ],
    ['beehive', ['my bee hive', 'hive bee'], [['bee hive', 'joined']]],
    ['beehive', ['bee', 'hive'], []],
    ['café', ['cafe'], [['cafe', 'accent']]],
    ['cafe', ['Café!'], [['café', 'accent']]],
    [
      'honey',
      ['hony', 'honye', 'hone', 'phoney', 'money pot'],
      [
        ['hone', 'misspelt'],
        ['honye', 'misspelt'],
        ['hony', 'misspelt'],
        ['money', 'misspelt'],
        ['phoney', 'misspelt'],
      ],
    ],
    ['bees', ['bess', 'bee'], [['bee', 'plural']]],
    [
      'extractor',
      ['extracter', 'extrator', 'exractr', 'extrtr'],
      [
        ['extracter', 'misspelt'],
        ['extrator', 'misspelt'],
        ['exractr', 'misspelt'],
      ],
    ],
    ['organized', ['organization'], []],
    ['mouse trap', ['mice'], [['mice trap', 'plural']]],
    ['', ['hive'], []],
    ['???', ['hive'], []],
  ] as [string, string[], [string, string][]][])('of %j in %j', (text, vocabulary, expected) => {
    const found = variants(text, vocabulary).map(({ text: other, how }) => [other, how]);
    expect(found.sort()).toEqual([...expected].sort());
  });

  test('only what occurs is offered, never the text itself, each once', () => {
    const word = fc.string({
      unit: fc.constantFrom('a', 'b', 'é', 'e', 's', 'x'),
      minLength: 1,
      maxLength: 7,
    });
    const text = fc.array(word, { maxLength: 3 }).map((ws) => ws.join(' '));
    fc.assert(
      fc.property(text, fc.array(text, { maxLength: 6 }), (asked, occurring) => {
        const found = variants(asked, occurring);
        const known = compileVocabulary([...occurring, asked]);
        expect(new Set(found.map((v) => v.text)).size).toBe(found.length);
        for (const { text: other } of found) {
          expect(other).not.toBe(asked);
          expect(other.split(' ').every((w) => known.hasWord(w))).toBe(true);
        }
      }),
      { numRuns: 1_000 },
    );
  });
});

describe('the remainder', () => {
  test.each([
    ['beginners bee hive kit', ['bee hives'], ['beginners', 'kit']],
    ['bee hive', ['hives', 'bee'], []],
    ['painting a hive', ['paint'], ['a hive']],
    ['painted hive', ['painting'], ['hive']],
    ['the best bee suit for children', ['bee suit', 'child'], ['the best', 'for']],
    ['bee suit', [], ['bee suit']],
    ['BEE-suit', ['Bee'], ['suit']],
    ['', ['bee'], []],
  ] as [string, string[], string[]][])('of %j for %j is %j', (text, given, left) => {
    expect(remainder(text, given)).toEqual(left);
  });

  test('holds the words that share no stem with what is given, in order', () => {
    const word = fc.constantFrom('bee', 'bees', 'hive', 'hives', 'hiving', 'suit', 'paint', 'painted', 'a');
    const text = fc.array(word, { maxLength: 6 }).map((ws) => ws.join(' '));
    fc.assert(
      fc.property(text, fc.array(text, { maxLength: 2 }), (whole, given) => {
        const stems = given.flatMap((g) => g.split(' ')).map(stemOf);
        const kept = whole.split(' ').filter((w) => w !== '' && !stems.includes(stemOf(w)));
        expect(remainder(whole, given).join(' ')).toBe(kept.join(' '));
      }),
      { numRuns: 1_000 },
    );
  });
});
