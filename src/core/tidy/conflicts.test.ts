import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { noFigures } from '../figures';
import { classifyConflict, compileAccountGate, type PlacedNegative } from '../gate';
import { anAccount, aText } from '../gate/testing';
import { findConflicts } from './conflicts';

const account = (...negatives: PlacedNegative[]) => ({
  campaigns: [{ id: 'c1', adGroups: [{ id: 'g1' }, { id: 'g2' }] }],
  lists: [],
  negatives,
});
const free: PlacedNegative = { id: 'n1', text: 'free', match: 'broad', place: { kind: 'adGroup', id: 'g1' } };

describe('conflicts', () => {
  test('carry what the stopped terms of the keyword cost', () => {
    const [conflict, ...more] = findConflicts({
      account: account(free),
      keywords: [
        { id: 'k1', adGroupId: 'g1', text: 'free hive', match: 'exact' },
        { id: 'k2', adGroupId: 'g2', text: 'free hive', match: 'exact' },
      ],
      served: [
        { text: 'free hive', keywordId: 'k1', costMicros: 3_000_000, conversions: 0 },
        { text: 'hive', keywordId: 'k1', costMicros: 9_000_000, conversions: 2 },
        { text: 'free hive', keywordId: 'k2', costMicros: 1_000_000, conversions: 1 },
        { text: 'free bee', keywordId: null, costMicros: 1_000_000, conversions: 1 },
      ],
    });
    expect(conflict).toEqual({
      ...{ keywordId: 'k1', negativeId: 'n1', severity: 'shut out', terms: 1 },
      lost: { ...noFigures(), costMicros: 3_000_000, conversions: 0 },
    });
    expect(more).toEqual([]);
  });

  test('a term that never converted makes no conflict by itself, one that did is costly', () => {
    const ask = (conversions: number) =>
      findConflicts({
        account: account(free),
        keywords: [{ id: 'k1', adGroupId: 'g1', text: 'hive', match: 'broad' }],
        served: [{ text: 'free hive', keywordId: 'k1', costMicros: 5, conversions }],
      }).map((c) => c.severity);
    expect(ask(0)).toEqual([]);
    expect(ask(0.5)).toEqual(['costly']);
  });

  test('are those that the rule names, keyword by keyword and negative by negative', () => {
    const aKeyword = fc.record({
      adGroupId: fc.constantFrom('g1', 'g2', 'g3'),
      text: aText(3),
      match: fc.constantFrom('broad' as const, 'phrase' as const, 'exact' as const),
    });
    const terms = fc.array(fc.tuple(aText(), fc.nat(3), fc.nat(1)), { maxLength: 6 });
    fc.assert(
      fc.property(anAccount(), fc.array(aKeyword, { maxLength: 4 }), terms, (shape, drawn, rows) => {
        const keywords = drawn.map((k, i) => ({ ...k, id: `k${i}` }));
        const served = rows.map(([text, k, conversions]) => ({
          text,
          keywordId: `k${k}`,
          conversions,
          costMicros: 1,
        }));
        const gate = compileAccountGate(shape);
        const expected = keywords.flatMap((keyword) =>
          shape.negatives
            .filter((negative) => gate.isInForce(negative.id, keyword.adGroupId))
            .flatMap((negative) => {
              const own = served.filter((s) => s.keywordId === keyword.id);
              const { severity, stoppedTerms } = classifyConflict({ keyword, negative, terms: own });
              return severity === 'none'
                ? []
                : [`${keyword.id} ${negative.id} ${severity} ${stoppedTerms.length}`];
            }),
        );
        const found = findConflicts({ account: shape, keywords, served });
        expect(found.map((c) => `${c.keywordId} ${c.negativeId} ${c.severity} ${c.terms}`).sort()).toEqual(
          expected.sort(),
        );
      }),
      { numRuns: 1_500 },
    );
  });
});
