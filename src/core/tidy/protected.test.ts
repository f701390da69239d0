import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { stops, type AccountShape } from '../gate';
import { anAccount, aText } from '../gate/testing';
import { findProtectedHits } from './protected';
import { compileReach } from './reach';

describe('negatives that stop protected terms', () => {
  const account: AccountShape = {
    campaigns: [{ id: 'c1', adGroups: [{ id: 'g1' }] }],
    lists: [{ id: 'l1', hungOn: [] }],
    negatives: [
      { id: 'own', text: 'free delivery', match: 'phrase', place: { kind: 'adGroup', id: 'g1' } },
      { id: 'wide', text: 'free', match: 'broad', place: { kind: 'account', id: null } },
      { id: 'idle', text: 'free', match: 'broad', place: { kind: 'list', id: 'l1' } },
    ],
  };

  test('come with those terms, most first; one that is in force nowhere stops none', () => {
    expect(findProtectedHits(account, ['hive', 'hive free delivery', 'free hive'])).toEqual([
      { negativeId: 'wide', texts: [1, 2] },
      { negativeId: 'own', texts: [1] },
    ]);
    expect(findProtectedHits(account, [])).toEqual([]);
  });

  test('are those that the rule names, one by one', () => {
    fc.assert(
      fc.property(anAccount(), fc.array(aText(), { maxLength: 5 }), (shape, texts) => {
        const reach = compileReach(shape);
        const expected = shape.negatives
          .filter(({ place }) => reach.adGroupsOf(place).length > 0)
          .map((negative) => ({
            negativeId: negative.id,
            texts: texts.flatMap((text, i) => (stops(negative, text) ? [i] : [])),
          }))
          .filter(({ texts: of }) => of.length > 0);
        const byId = (all: typeof expected) => all.toSorted((a, b) => (a.negativeId < b.negativeId ? -1 : 1));
        expect(byId(findProtectedHits(shape, texts))).toEqual(byId(expected));
      }),
    );
  });
});
