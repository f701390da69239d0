import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compileAccountGate, type AccountShape } from '../gate';
import { anAccount, aText } from '../gate/testing';
import { proveNeedless } from './proof';
import { findRedundant } from './redundant';

const account: AccountShape = {
  campaigns: [{ id: 'c1', adGroups: [{ id: 'g1' }, { id: 'g2' }] }],
  lists: [],
  negatives: [
    { id: 'wide', text: 'free', match: 'phrase', place: { kind: 'campaign', id: 'c1' } },
    { id: 'needless', text: 'free plans', match: 'broad', place: { kind: 'adGroup', id: 'g1' } },
  ],
};

describe('the proof that negatives can go', () => {
  test('counts the gates and the queries that were tried, real ones and made ones', () => {
    expect(proveNeedless(account, new Set(['needless']), ['hive', 'plans free', 'plans for free'])).toEqual({
      ...{ adGroups: 1, real: 2, generated: 4, differences: [] },
    });
  });

  test('names the queries that would be answered otherwise', () => {
    const { differences, adGroups } = proveNeedless(account, new Set(['wide']), ['free hive']);
    expect(adGroups).toBe(2);
    expect(differences).toContainEqual({ query: 'free hive', adGroupId: 'g2' });
  });

  test('holds for everything that is redundant together, whatever is asked', () => {
    fc.assert(
      fc.property(anAccount(), fc.array(aText(), { maxLength: 6 }), (shape, queries) => {
        const removed = new Set(findRedundant(shape).map(({ id }) => id));
        expect(proveNeedless(shape, removed, queries).differences).toEqual([]);
      }),
    );
  });

  test('finds each query that a gate would answer otherwise', () => {
    fc.assert(
      fc.property(anAccount(), fc.uniqueArray(aText(), { maxLength: 6 }), fc.nat(), (shape, queries, at) => {
        fc.pre(shape.negatives.length > 0);
        const gone = shape.negatives[at % shape.negatives.length]!.id;
        const [before, after] = [
          compileAccountGate(shape),
          compileAccountGate({ ...shape, negatives: shape.negatives.filter(({ id }) => id !== gone) }),
        ];
        const expected = queries.flatMap((query) =>
          shape.campaigns.flatMap(({ adGroups }) =>
            adGroups
              .filter(
                ({ id }) => before.stoppers(query, id).length > 0 && after.stoppers(query, id).length === 0,
              )
              .map(({ id }) => `${query} ${id}`),
          ),
        );
        const { differences } = proveNeedless(shape, new Set([gone]), queries);
        const asked = new Set(queries);
        const told = differences.filter(({ query }) => asked.has(query));
        expect(new Set(told.map(({ query, adGroupId }) => `${query} ${adGroupId}`))).toEqual(
          new Set(expected),
        );
      }),
    );
  });
});
