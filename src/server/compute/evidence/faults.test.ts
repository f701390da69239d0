import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { findWordsAtFault, LEAST_EXPECTED } from '@/core';
import { aBench } from '../sift/testing';
import type { Snapshot } from '../snapshot';
import { figuresAt, keyAt } from '../window-columns';
import { faultOf, judgingOf } from './faults';

const STEERING = { steersBy: 'CPA', targetMicros: 20_000_000, targetAcos: null } as const;

/** What the core says of the same rows, given one by one. */
const plainWords = ({ rows, terms }: Snapshot) =>
  findWordsAtFault(
    Array.from({ length: rows.count }, (_, r) => ({
      ...{ text: keyAt(terms, rows.termOf[r]!), adGroupId: String(rows.adGroupId[r]!) },
      ...figuresAt(rows, r),
    })),
    { targetMicros: STEERING.targetMicros },
  );

describe('the words at fault of an account', () => {
  test('are those that the core finds in its rows, as far as they can be judged', () => {
    let judged = 0;
    fc.assert(
      fc.property(aBench, ({ snapshot }) => {
        const plain = plainWords(snapshot).filter(({ expected }) => expected >= LEAST_EXPECTED);
        const words = judgingOf(snapshot, STEERING)?.words ?? [];
        expect(words.map(({ ngram, terms }) => `${ngram} ${terms}`).sort()).toEqual(
          plain.map(({ ngram, terms }) => `${ngram} ${terms}`).sort(),
        );
        for (const word of words) {
          const same = plain.find(({ ngram }) => ngram === word.ngram)!;
          for (const figure of ['clicks', 'conversions', 'expected', 'probability'] as const)
            expect(word[figure]).toBeCloseTo(same[figure], 8);
          judged += 1;
        }
      }),
      { numRuns: 200 },
    );
    expect(judged).toBeGreaterThan(100);
  });

  test('of one n-gram alone say the same as of all together; of several, each term counts once', () => {
    fc.assert(
      fc.property(aBench, ({ snapshot }) => {
        for (const { ngram, ...word } of judgingOf(snapshot, STEERING)?.words ?? []) {
          const alone = faultOf(snapshot, STEERING, [ngram])!;
          expect(alone.probability).toBeCloseTo(word.probability, 8);
          expect(faultOf(snapshot, STEERING, [ngram, ngram])).toEqual(alone);
          expect(alone).toMatchObject({ terms: word.terms, clicks: word.clicks });
        }
      }),
      { numRuns: 100 },
    );
  });
});
