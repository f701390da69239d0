import fc from 'fast-check';
import { expect, test } from 'vitest';
import { addFigures, noFigures, shiftDay, type Figures } from '@/core';
import { createReportRows, DAY, FIGURES, KEYWORD, ranksOf, RECORD, sumRows, TERM } from './report-rows';

const figure = fc.option(fc.integer({ min: 0, max: 5 }));
const row = fc.record({
  day: fc.constantFrom('2026-10-01', '2026-10-02', '1999-12-31'),
  keyword: fc.nat({ max: 3 }),
  term: fc.nat({ max: 3 }),
  figures: fc.record({
    ...{ impressions: figure, clicks: figure, costMicros: figure, conversions: figure, valueMicros: figure },
  }),
});

test('rows of one day, keyword and term are summed as figures are, and stand in order', () => {
  fc.assert(
    fc.property(
      fc.array(row, { maxLength: 30 }),
      fc.tuple(fc.nat({ max: 2 }), fc.nat({ max: 2 }), fc.nat({ max: 70_000 }), fc.nat({ max: 70_000 })),
      fc.uniqueArray(fc.nat({ max: 200_000 }), { minLength: 4, maxLength: 4 }),
      (rows, keywordIds, termIds) => {
        const gathered = createReportRows();
        const expected = new Map<string, Figures>();
        for (const { day, keyword, term, figures } of rows) {
          gathered.add(day, keyword, term, figures);
          const key = JSON.stringify([day, keywordIds[keyword], termIds[term]]);
          const sum = expected.get(key) ?? noFigures();
          addFigures(sum, figures);
          expected.set(key, sum);
        }
        const { count, records } = sumRows(gathered.read(), {
          keywords: ranksOf(Int32Array.from(keywordIds)),
          terms: ranksOf(Int32Array.from(termIds)),
        });
        const found = Array.from({ length: count }, (_, r) => {
          const of = records.subarray(RECORD * r, RECORD * (r + 1));
          const [impressions, clicks, costMicros, conversions, valueMicros] = Array.from(
            of.subarray(FIGURES),
            (value) => (Number.isNaN(value) ? null : value),
          );
          const key = [shiftDay('2000-01-01', of[DAY]!), keywordIds[of[KEYWORD]!], termIds[of[TERM]!]];
          return { key, figures: { impressions, clicks, costMicros, conversions, valueMicros } };
        });
        expect(new Map(found.map(({ key, figures }) => [JSON.stringify(key), figures]))).toEqual(expected);
        expect(found).toHaveLength(expected.size);
        const inOrder = (a: unknown[], b: unknown[]) => {
          const at = a.findIndex((part, i) => part !== b[i]);
          return at < 0 || a[at]! < b[at]!;
        };
        expect(found.every(({ key }, i) => i === 0 || inOrder(found[i - 1]!.key, key))).toBe(true);
      },
    ),
    { numRuns: 1_000 },
  );
});

test('a rank in the order of several columns is how many come before', () => {
  const column = fc.array(fc.integer({ min: 0, max: 2 ** 31 - 1 }), { minLength: 6, maxLength: 6 });
  fc.assert(
    fc.property(column, fc.array(fc.nat({ max: 2 }), { minLength: 6, maxLength: 6 }), (wide, narrow) => {
      const ranks = ranksOf(Int32Array.from(narrow), Int32Array.from(wide));
      const pairs = wide.map((_, i) => `${narrow[i]} ${String(wide[i]).padStart(10, '0')}`);
      const ordered = [...new Set(pairs)].sort();
      expect([...ranks]).toEqual(pairs.map((pair) => ordered.indexOf(pair)));
    }),
    { numRuns: 1_000 },
  );
});

test('the days of rows that went elsewhere still count', () => {
  const rows = createReportRows();
  expect(rows.span()).toBeNull();
  rows.add('2026-10-05', 0, 0, noFigures());
  rows.clear();
  rows.add('2026-10-02', 0, 0, noFigures());
  expect(rows.span()).toEqual({ from: '2026-10-02', to: '2026-10-05' });
  expect(rows.count).toBe(1);
});
