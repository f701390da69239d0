import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { productCodeTest } from '../changes';
import { aText } from '../gate/testing';
import { findLaneFaults } from './faults-of-lanes';
import { compileLanes, type Tier } from './tiers';
import { aPlan } from './testing';

const plan = (...entryTerms: string[][]): Tier[] =>
  [[], ...entryTerms].map((terms, i) => ({ id: `t${i}`, entryTerms: terms }));

describe('of a plan it is told', () => {
  test('that the same entry term lets into a later tier', () => {
    expect(findLaneFaults(plan(['smoker', 'veil'], ['Smoker']))).toEqual([
      { fault: 'taken later', tier: 1, entryTerm: 'smoker', by: { tier: 2, entryTerm: 'smoker' } },
    ]);
  });

  test('that a later entry term lies inside an earlier one, and the other way round that nothing is wrong', () => {
    expect(findLaneFaults(plan(['pellwright smoker', 'veil'], ['pellwright']))).toEqual([
      {
        fault: 'taken later',
        tier: 1,
        entryTerm: 'pellwright smoker',
        by: { tier: 2, entryTerm: 'pellwright' },
      },
    ]);
    expect(findLaneFaults(plan(['pellwright'], ['pellwright smoker']))).toEqual([]);
  });

  test('that a tier is unreachable, because it has no entry term or none that lets a query in', () => {
    expect(findLaneFaults(plan([], ['kit']))).toEqual([{ fault: 'unreachable', tier: 1 }]);
    expect(findLaneFaults(plan(['kit'], ['kit']))).toEqual([
      { fault: 'taken later', tier: 1, entryTerm: 'kit', by: { tier: 2, entryTerm: 'kit' } },
      { fault: 'unreachable', tier: 1 },
    ]);
  });

  test('that an entry term holds no word, or is a product code', () => {
    const isCode = productCodeTest('[A-Z]{2}-\\d{4}');
    expect(findLaneFaults(plan(['?!', 'LK-2041', 'kit']), isCode)).toEqual([
      { fault: 'no word', tier: 1, entryTerm: '?!' },
      { fault: 'product code', tier: 1, entryTerm: 'LK-2041' },
    ]);
    expect(findLaneFaults(plan(['LK-2041']))).toEqual([]);
  });

  test('nothing of entry terms of the first tier, which takes whatever is left', () => {
    expect(findLaneFaults([{ id: 'all', entryTerms: ['?!', 'kit'] }])).toEqual([]);
  });
});

test('an exact entry term later takes a phrase one no queries but its own', () => {
  const seats: Tier[] = [
    { id: 'broad', entryTerms: [] },
    { id: 'phrase', entryTerms: ['bee hive'] },
    { id: 'exact', entryTerms: ['bee hive'], entryMatch: 'exact' },
  ];
  expect(findLaneFaults(seats)).toEqual([]);
});

test('no query lands in a tier that is said to be unreachable, and none is let in by an entry term that is taken later', () => {
  fc.assert(
    fc.property(aPlan(), aText(), (tiers, query) => {
      const faults = findLaneFaults(tiers);
      const { route, entryTermOf } = compileLanes(tiers);
      expect(faults).not.toContainEqual({ fault: 'unreachable', tier: route(query) });
      const entryTerm = entryTermOf(query);
      for (const fault of faults)
        if (fault.fault === 'taken later' && fault.tier === entryTerm?.tier)
          expect(fault.entryTerm).not.toBe(entryTerm.text);
    }),
  );
});

test('an entry term that is not found fault with lets in its own text', () => {
  fc.assert(
    fc.property(aPlan(), (tiers) => {
      const faulty = new Set(
        findLaneFaults(tiers).flatMap((fault) =>
          'entryTerm' in fault ? `${fault.tier} ${fault.entryTerm}` : [],
        ),
      );
      const { route } = compileLanes(tiers);
      tiers.forEach(({ entryTerms }, tier) => {
        if (tier === 0) return;
        for (const entryTerm of entryTerms)
          if (!faulty.has(`${tier} ${entryTerm}`)) expect(route(entryTerm)).toBeGreaterThanOrEqual(tier);
      });
    }),
  );
});
