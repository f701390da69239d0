import fc from 'fast-check';
import { expect, test } from 'vitest';
import { compareWithUndefinedLast } from '.';
import { numbersTo, orderBy, sortByMeasure } from './columns';

test('things stand in the order of their columns, equals as they stood', () => {
  const number = fc.oneof(fc.nat(3), fc.integer({ min: 0, max: 2 ** 31 - 1 }));
  fc.assert(
    fc.property(fc.array(fc.tuple(number, number), { maxLength: 40 }), (pairs) => {
      const [first, second] = [0, 1].map((c) => Int32Array.from(pairs, (pair) => pair[c]!));
      const expected = pairs
        .map((pair, i) => ({ pair, i }))
        .sort((a, b) => a.pair[0] - b.pair[0] || a.pair[1] - b.pair[1] || a.i - b.i);
      expect([...orderBy(first!, second!)]).toEqual(expected.map(({ i }) => i));
    }),
    { numRuns: 500 },
  );
});

test('measures of any size sort as numbers do, unknown ones last, equals as they stood', () => {
  const measure = fc.oneof(fc.double(), fc.integer({ min: -3, max: 3 }), fc.constantFrom(0, -0, NaN));
  fc.assert(
    fc.property(fc.array(measure, { maxLength: 40 }), (measures) => {
      const known = (i: number) => (Number.isNaN(measures[i]!) ? null : measures[i]!);
      const items = numbersTo(measures.length).reverse();
      const expected = [...items].sort(
        (a, b) => compareWithUndefinedLast(known(a), known(b), 'asc') || b - a,
      );
      expect([...sortByMeasure(items, Float64Array.from(measures))]).toEqual(expected);
    }),
    { numRuns: 1_000 },
  );
});
