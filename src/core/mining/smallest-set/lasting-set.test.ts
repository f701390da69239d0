import fc from 'fast-check';
import { randomLcg } from 'd3';
import { describe, expect, test } from 'vitest';
import { stops, type NegativeText } from '../../gate';
import { aText } from '../../gate/testing';
import { normalise } from '../../text';
import { lastingSet, type LastingQuestion } from './lasting-set';
import { smallestSet } from './smallest-set';

const said = (negatives: readonly NegativeText[]) => negatives.map(({ text, match }) => `${text} ${match}`);
const question = (of: Partial<LastingQuestion>): LastingQuestion => ({
  ...{ unwanted: [], open: [], good: [], limit: 10, evidenceOf: () => 1, ...of },
});
const costing = (costMicros: number, ...texts: string[]) => texts.map((text) => ({ text, costMicros }));

describe('the set that also works next month', () => {
  test('a word that several hold comes before one costlier text', () => {
    const unwanted = [...costing(3, 'free hive', 'free kit', 'free plans'), ...costing(8, 'dear one')];
    expect(said(lastingSet(question({ unwanted, limit: 1 })).negatives)).toEqual(['free phrase']);
  });

  test('of words that stop the same, the one that is surely at fault', () => {
    const unwanted = costing(5, 'hive movie', 'hive movie cast');
    const evidenceOf = ({ text }: NegativeText) => (text === 'movie' ? 0.9 : 0.2);
    expect(said(lastingSet(question({ unwanted, limit: 1, evidenceOf })).negatives)).toEqual([
      'movie phrase',
    ]);
  });

  test('among equals the more general one', () => {
    const unwanted = costing(5, 'queen bee costume kit');
    expect(said(lastingSet(question({ unwanted, open: ['queen', 'kit', 'bee'] })).negatives)).toEqual([
      'costume phrase',
    ]);
  });

  test('what is worth little is left out, however many there may be', () => {
    const unwanted = [...costing(1_000, 'a x', 'b x', 'c x'), ...costing(2, 'lonely')];
    expect(said(lastingSet(question({ unwanted, limit: 500 })).negatives)).toEqual(['x phrase']);
  });

  test('nothing of which nothing is sure', () => {
    const unwanted = costing(5, 'free hive', 'free kit');
    expect(lastingSet(question({ unwanted, evidenceOf: () => 0 })).negatives).toEqual([]);
  });

  test('a limit that is no number of negatives is a mistake', () => {
    expect(() => lastingSet(question({ limit: -1 }))).toThrow('got -1');
    expect(() => lastingSet(question({ limit: 0.5 }))).toThrow(RangeError);
  });

  test('what is held back neither chooses nor speaks for a negative', () => {
    const unwanted = Array.from({ length: 20 }, (_, i) => ({ text: `word${i} movie`, costMicros: 10 }));
    const good = Array.from({ length: 10 }, (_, i) => `good${i}`);
    const leftOut: ReadonlySet<string>[] = [];
    const { heldBack } = lastingSet(
      question({ unwanted, good, evidenceOf: (_, without) => (leftOut.push(without), 1) }),
    );
    const held = [...new Set(leftOut)].find(({ size }) => size > 0)!;
    expect([...held].filter((text) => text.includes('movie'))).toHaveLength(4);
    expect([...held].filter((text) => text.startsWith('good'))).toHaveLength(2);
    expect(heldBack).toEqual({
      unwanted: { texts: 4, costMicros: 40, stopped: 4, stoppedMicros: 40 },
      good: { texts: 2, stopped: 0 },
    });
  });

  test('a good term that is held back can be hit, and is told; the set itself leaves it open', () => {
    // Each good term holds a word of its own in common with the unwanted ones.
    const good = Array.from({ length: 5 }, (_, i) => `good w${i}`);
    const unwanted = good.flatMap((_, i) =>
      costing(10, ...['a', 'b', 'c', 'd'].map((own) => `${own}${i} w${i}`)),
    );
    const { negatives, heldBack } = lastingSet(question({ unwanted, good }));
    expect(heldBack.good).toEqual({ texts: 1, stopped: 1 });
    for (const text of good) expect(negatives.some((n) => stops(n, text))).toBe(false);
  });

  test('it stops nothing that must stay open, keeps its limit, and is the same for any order', () => {
    const term = fc.record({ text: aText(3), costMicros: fc.nat(9) });
    fc.assert(
      fc.property(
        fc.uniqueArray(term, { maxLength: 12, selector: ({ text }) => normalise(text) }),
        fc.array(aText(3), { maxLength: 3 }),
        fc.array(aText(3), { maxLength: 3 }),
        fc.nat(4),
        (unwanted, open, good, limit) => {
          const evidenceOf = ({ text, match }: NegativeText) => ((text.length + match.length) % 7) / 6;
          const asked = question({ unwanted, open, good, limit, evidenceOf });
          const { negatives, heldBack } = lastingSet(asked);
          expect(negatives.length).toBeLessThanOrEqual(limit);
          for (const text of [...open, ...good]) expect(negatives.some((n) => stops(n, text))).toBe(false);
          const some = unwanted.filter(({ costMicros }) => costMicros > 0);
          expect(heldBack.unwanted.texts).toBe(Math.floor(some.length / 5));
          expect(heldBack.unwanted.stopped).toBeLessThanOrEqual(heldBack.unwanted.texts);
          const turned = lastingSet({
            ...asked,
            unwanted: [...unwanted].reverse(),
            good: [...good].reverse(),
          });
          expect(turned.heldBack.unwanted.texts).toBe(heldBack.unwanted.texts);
          expect(turned.heldBack.good).toMatchObject({ texts: heldBack.good.texts });
        },
      ),
    );
  });

  test('of terms held back it stops more than twice what the smallest set does', () => {
    const draw = randomLcg(0.4);
    const pick = (words: readonly string[]) => words[Math.floor(draw() * words.length)]!;
    const faults = ['movie', 'free', 'jobs', 'tattoo', 'lyrics'];
    const rest = Array.from({ length: 60 }, (_, i) => `w${i}`);
    const aTerm = () => `${pick(rest)} ${pick(faults)} ${pick(rest)}`;
    const all = [...new Set(Array.from({ length: 200 }, aTerm))];
    const [seen, held, unmarked] = [all.slice(0, 80), all.slice(80, 120), all.slice(120)];
    const unwanted = seen.map((text) => ({ text, costMicros: 1 + Math.floor(draw() * 100) }));
    const evidenceOf = ({ text }: NegativeText) => (faults.some((f) => text.includes(f)) ? 0.9 : 0.3);
    const open = rest;
    const stopped = (negatives: readonly NegativeText[]) =>
      held.filter((text) => negatives.some((n) => stops(n, text))).length;
    const exactly = smallestSet({ unwanted, open: [...open, ...unmarked], limit: 10 });
    const like = lastingSet(question({ unwanted, open, limit: 10, evidenceOf }));
    expect(stopped(like.negatives)).toBe(held.length);
    expect(stopped(like.negatives)).toBeGreaterThan(2 * stopped(exactly.negatives));
    expect(like.heldBack.unwanted.stopped).toBe(like.heldBack.unwanted.texts);
  });
});
