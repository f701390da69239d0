import fc from 'fast-check';
import { randomLcg } from 'd3';
import { describe, expect, test } from 'vitest';
import { stops, type NegativeText } from '../../gate';
import { aText } from '../../gate/testing';
import { normalise } from '../../text';
import { smallestSet } from './smallest-set';

const unwanted = (...texts: [string, number][]) => texts.map(([text, costMicros]) => ({ text, costMicros }));
const stoppedBy = (
  negatives: readonly NegativeText[],
  terms: readonly { text: string; costMicros: number }[],
) => terms.reduce((sum, t) => sum + (negatives.some((n) => stops(n, t.text)) ? t.costMicros : 0), 0);

describe('the smallest set', () => {
  test.each([
    ['one word at fault', unwanted(['free hive', 5], ['free kit', 3]), ['hive'], 1, ['free phrase']],
    [
      'the shortest run that leaves open what must be',
      unwanted(['free hive plans', 5]),
      ['free delivery', 'plans'],
      3,
      ['hive phrase'],
    ],
    [
      'a whole text where all its runs stand in open ones',
      unwanted(['bee hive', 5]),
      ['bee hive kit'],
      1,
      ['bee hive exact'],
    ],
    ['nothing where the text itself must stay open', unwanted(['bee hive', 5]), ['Bee Hive!'], 1, []],
    ['exact before phrase, of the same words', unwanted(['hive', 5]), [], 1, ['hive exact']],
    [
      'what costs the most within the limit',
      unwanted(['a x', 9], ['b y', 8], ['c z', 7]),
      [],
      2,
      ['a phrase', 'b phrase'],
    ],
    ['nothing with a limit of 0', unwanted(['a x', 9]), [], 0, []],
    ['nothing for what costs nothing', unwanted(['a x', 0], ['??', 5]), [], 2, []],
    ['one for texts that are the same', unwanted(['a x', 2], ['A-X', 3]), ['a', 'x'], 5, ['a x exact']],
  ] as const)('is %s', (_, terms, open, limit, expected) => {
    const { negatives, stoppedCostMicros, boundMicros } = smallestSet({ unwanted: terms, open, limit });
    expect(negatives.map((n) => `${n.text} ${n.match}`)).toEqual(expected);
    expect(stoppedCostMicros).toBe(stoppedBy(negatives, terms));
    expect(boundMicros).toBe(stoppedCostMicros);
  });

  test('prefers fewer negatives to more that stop the same', () => {
    // Two words of each would do as well; the one they share does it alone.
    const terms = unwanted(['a free', 2], ['b free', 2], ['c free', 2]);
    expect(smallestSet({ unwanted: terms, open: [], limit: 3 }).negatives).toEqual([
      { text: 'free', match: 'phrase' },
    ]);
  });

  test('a limit that is no number of negatives is a mistake', () => {
    expect(() => smallestSet({ unwanted: [], open: [], limit: 1.5 })).toThrow('got 1.5');
    expect(() => smallestSet({ unwanted: [], open: [], limit: -1 })).toThrow(RangeError);
  });

  test('is as good as the best of all sets, on small questions', () => {
    const term = fc.record({ text: aText(3), costMicros: fc.nat(9) });
    fc.assert(
      fc.property(
        fc.array(term, { maxLength: 5 }),
        fc.array(aText(3), { maxLength: 3 }),
        fc.nat(3),
        (terms, open, limit) => {
          const found = smallestSet({ unwanted: terms, open, limit });
          for (const negative of found.negatives)
            expect(open.some((text) => stops(negative, text))).toBe(false);
          expect(found.negatives.length).toBeLessThanOrEqual(limit);
          expect(found.stoppedCostMicros).toBe(stoppedBy(found.negatives, terms));
          const best = bestOfAll(terms, open, limit);
          expect(rank(found.negatives, terms)).toEqual(best);
          expect(found.boundMicros).toBe(found.stoppedCostMicros);
        },
      ),
      { numRuns: 1_000 },
    );
  });

  test('on larger questions it never stops an open term, keeps its limit, and stays close to its bound', () => {
    const draw = randomLcg(0.3);
    const text = (of: number) =>
      Array.from({ length: 2 + Math.floor(draw() * 4) }, () => `w${Math.floor(of ** draw())}`).join(' ');
    const terms = Array.from({ length: 3_000 }, () => ({
      text: text(400),
      costMicros: Math.floor(draw() * 1e6),
    }));
    const open = Array.from({ length: 600 }, () => text(400));
    for (const limit of [1, 20, 150]) {
      const found = smallestSet({ unwanted: terms, open, limit });
      expect(found.negatives.length).toBeLessThanOrEqual(limit);
      expect(found.negatives.some((n) => open.some((o) => stops(n, o)))).toBe(false);
      expect(found.stoppedCostMicros).toBe(stoppedBy(found.negatives, terms));
      expect(found.stoppedCostMicros).toBeLessThanOrEqual(found.boundMicros);
      expect(found.stoppedCostMicros / found.boundMicros).toBeGreaterThan(0.97);
    }
  });
});

type Rank = [cost: number, negatives: number, words: number, characters: number, phrases: number];

function rank(negatives: readonly NegativeText[], terms: Parameters<typeof stoppedBy>[1]): Rank {
  return [
    -stoppedBy(negatives, terms),
    negatives.length,
    negatives.reduce((sum, n) => sum + n.text.split(' ').length, 0),
    negatives.reduce((sum, n) => sum + [...n.text].length, 0),
    negatives.filter((n) => n.match === 'phrase').length,
  ];
}

/** Every set of every candidate, one after another (rules 9.1). */
function bestOfAll(terms: Parameters<typeof stoppedBy>[1], open: readonly string[], limit: number): Rank {
  const candidates = new Map<string, NegativeText>();
  for (const { text, costMicros } of terms) {
    const words = normalise(text).split(' ');
    if (normalise(text) === '' || costMicros === 0) continue;
    candidates.set(`exact ${words.join(' ')}`, { text: words.join(' '), match: 'exact' });
    for (let n = 1; n <= 4; n++)
      for (let at = 0; at + n <= words.length; at++) {
        const run = words.slice(at, at + n).join(' ');
        candidates.set(`phrase ${run}`, { text: run, match: 'phrase' });
      }
  }
  const allowed = [...candidates.values()].filter((c) => !open.some((o) => stops(c, o)));
  let best = rank([], terms);
  const look = (chosen: NegativeText[], from: number) => {
    const own = rank(chosen, terms);
    if (compare(own, best) < 0) best = own;
    if (chosen.length < limit)
      for (let i = from; i < allowed.length; i++) look([...chosen, allowed[i]!], i + 1);
  };
  look([], 0);
  return best;
}

function compare(a: Rank, b: Rank): number {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! - b[i]!;
  return 0;
}
