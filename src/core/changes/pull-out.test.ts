import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compileGate, covers, MATCH_TYPES, stops } from '../gate';
import { proposePullOuts } from './pull-out';

const query = fc
  .array(fc.constantFrom('bee', 'hive', 'free', 'plans', 'movie'), { minLength: 1, maxLength: 4 })
  .map((words) => words.join(' '));

describe('letting one query through again', () => {
  test('a broad negative becomes a phrase where the words stand apart in the query', () => {
    const [best] = proposePullOuts({
      negative: { text: 'hive plans', match: 'broad' },
      query: 'plans for a hive',
      others: [
        { text: 'free hive plans', costMicros: 5 },
        { text: 'hive plans pdf', costMicros: 4 },
      ],
      open: [],
    });
    expect(best).toEqual({ how: 'narrower', negatives: [{ text: 'hive plans', match: 'phrase' }], left: [] });
  });

  test('longer phrases spare what must stay open, and say what they leave', () => {
    const ways = proposePullOuts({
      negative: { text: 'free', match: 'phrase' },
      query: 'free delivery hive',
      others: [
        { text: 'free hive plans', costMicros: 5 },
        { text: 'free hive', costMicros: 4 },
      ],
      open: ['hive plans', 'free hive'],
    });
    expect(ways[0]).toEqual({
      ...{ how: 'longer', negatives: [{ text: 'free hive plans', match: 'exact' }], left: [1] },
    });
    expect(ways.at(-1)).toEqual({ how: 'none', negatives: [], left: [0, 1] });
  });

  test('no way stops the query or what must stay open, and each names exactly what it leaves', () => {
    const asked = fc.record({
      text: query,
      match: fc.constantFrom(...MATCH_TYPES),
      term: query,
      others: fc.uniqueArray(query, { maxLength: 6 }),
      open: fc.array(query, { maxLength: 2 }),
    });
    fc.assert(
      fc.property(asked, ({ text, match, term, others, open }) => {
        const negative = { text, match };
        fc.pre(stops(negative, term));
        const stopped = others
          .filter((other) => other !== term && stops(negative, other))
          .map((other, i) => ({ text: other, costMicros: i + 1 }));
        for (const way of proposePullOuts({ negative, query: term, others: stopped, open })) {
          const gate = compileGate(way.negatives);
          expect(gate.isStopped(term)).toBe(false);
          if (way.how === 'longer') {
            expect(open.filter((o) => gate.isStopped(o))).toEqual([]);
            expect(way.negatives.filter((longer) => !covers(negative, longer))).toEqual([]);
          }
          expect(way.left).toEqual(stopped.flatMap((o, i) => (gate.isStopped(o.text) ? [] : [i])));
        }
      }),
      { numRuns: 1_000 },
    );
  });

  test('a negative that does not stop the query is a mistake', () => {
    expect(() =>
      proposePullOuts({ negative: { text: 'free', match: 'exact' }, query: 'hive', others: [], open: [] }),
    ).toThrow('must stop the query');
  });
});
