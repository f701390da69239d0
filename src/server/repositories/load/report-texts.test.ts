import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { productCodeTest } from '@/core';
import { createReportTexts, keyOfTerm } from './report-texts';

const isCode = productCodeTest('LK-\\d{4}-[SML]');

describe('terms of a report', () => {
  test.each([
    ['Bee  Hive!', 'bee hive', 'query'],
    ['bee hive', 'bee hive', 'query'],
    [' LK-2041-S ', 'lk-2041-s', 'code'],
    ['lk-2041-s', 'lk-2041-s', 'code'],
    ['(Unreported)', '(unreported)', 'unreported'],
    ['?!', '?!', 'wordless'],
  ])('%j is stored as %j: %s', (raw, key, kind) => {
    expect(keyOfTerm(raw, isCode)).toEqual({ key, kind });
  });

  test('have one number for each key, and keep how they were first written', () => {
    const raw = fc.oneof(
      fc.string({ unit: fc.constantFrom(...'ab -?É'), maxLength: 5 }),
      fc.constantFrom('LK-2041-S', 'lk-2041-s', '(unreported)', '(UNREPORTED)', 'lk 2041 s'),
    );
    fc.assert(
      fc.property(fc.array(raw, { maxLength: 40 }), (raws) => {
        const texts = createReportTexts(isCode);
        const known = new Map<string, { raw: string; kind: string }>();
        for (const text of raws) {
          const { key, kind } = keyOfTerm(text, isCode);
          if (!known.has(key)) known.set(key, { raw: text, kind });
          expect(texts.termOf(text)).toBe([...known.keys()].indexOf(key));
        }
        expect(texts.terms.keys).toEqual([...known.keys()]);
        expect(texts.terms.raws).toEqual([...known.values()].map((of) => of.raw));
        expect(texts.terms.kinds).toEqual([...known.values()].map((of) => of.kind));
      }),
      { numRuns: 1_000 },
    );
  });
});

test('keywords have one number for each name, place and match type', () => {
  const texts = createReportTexts(isCode);
  const hive = { campaign: 'Hives', adGroup: 'Starter', keyword: 'Bee Hive', match: 'broad' } as const;
  expect(texts.keywordOf(hive)).toBe(0);
  expect(texts.keywordOf({ ...hive, match: 'exact' })).toBe(1);
  expect(texts.keywordOf({ ...hive, campaign: '', adGroup: '', keyword: null, match: null })).toBe(2);
  expect(texts.keywordOf({ ...hive })).toBe(0);
  expect(texts.keywords[0]).toMatchObject({ text: 'Bee Hive', textKey: 'bee hive' });
  expect(texts.keywords[2]).toEqual({
    ...{ campaign: 'not given', adGroup: 'not given', text: '', textKey: '', match: 'unknown' },
  });
});
