import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compileAccountGate, MATCH_TYPES, stops, type PlacedNegative } from '../gate';
import { findConflicts } from './conflicts';
import { compileLeftOpen, findRouting } from './routing';

const account = (...negatives: PlacedNegative[]) => ({
  campaigns: [
    { id: 'c1', adGroups: [{ id: 'broad' }] },
    { id: 'c2', adGroups: [{ id: 'exact' }] },
  ],
  lists: [],
  negatives,
});
const keyword = (adGroupId: string, text: string, match: PlacedNegative['match']) => ({
  ...{ id: adGroupId, adGroupId, text, match },
});
const at = (place: PlacedNegative['place'], text = 'bee hive', match: PlacedNegative['match'] = 'exact') => ({
  ...{ id: 'n', text, match, place },
});
const seats = (negatives: PlacedNegative[], keywords: Parameters<typeof findRouting>[2]) => {
  const asked = account(...negatives);
  const conflicts = findConflicts({ account: asked, keywords, served: [] });
  return findRouting(conflicts, asked, keywords);
};

describe('routing negatives', () => {
  const here = { kind: 'adGroup', id: 'broad' } as const;
  const pair = [keyword('broad', 'bee hive', 'broad'), keyword('exact', 'Bee  Hive', 'exact')];

  test('keep their queries for a narrower keyword of another ad group', () => {
    expect(seats([at(here)], pair)).toEqual(['exact']);
  });

  test('are none where that keyword is as wide, stands in the same ad group, or is stopped itself', () => {
    expect(seats([at(here)], [pair[0]!, keyword('exact', 'bee hive', 'broad')])).toEqual([null]);
    expect(seats([at(here)], [pair[0]!, { ...pair[1]!, adGroupId: 'broad' }])).toEqual([null, null]);
    expect(seats([at({ kind: 'account', id: null })], pair)).toEqual([null, null]);
  });

  test('are none where they stop more than that keyword takes', () => {
    expect(seats([at(here, 'bee hive', 'phrase')], pair)).toEqual([null]);
    expect(seats([at(here, 'bee', 'phrase')], pair)).toEqual([null]);
    const phrase = keyword('exact', 'bee hive', 'phrase');
    expect(seats([at(here, 'bee hive', 'phrase')], [pair[0]!, phrase])).toEqual(['exact']);
  });

  test('keep their queries for a keyword of a campaign that is asked later', () => {
    const first = { ...keyword('broad', 'hive', 'broad'), turn: 1 };
    const later = { ...keyword('exact', 'larkfell', 'broad'), turn: 2 };
    const maker = at({ kind: 'campaign', id: 'c1' }, 'larkfell hive', 'phrase');
    const conflicts = [
      { keywordId: 'broad', negativeId: 'n', severity: 'costly' as const, terms: 1, lost: null },
    ];
    const routed = (...keywords: Parameters<typeof findRouting>[2]) =>
      findRouting(conflicts, account(maker), keywords);
    expect(routed(first, later)).toEqual(['exact']);
    expect(routed({ ...first, turn: 2 }, later)).toEqual([null]); // asked at the same time
    expect(routed({ ...first, turn: null }, later)).toEqual([null]);
    expect(routed(first, { ...later, text: 'larkfell shop' })).toEqual([null]); // takes less
    const own = { ...maker, place: { kind: 'account', id: null } as const };
    expect(findRouting(conflicts, account(own), [first, later])).toEqual([null]); // stopped there, too
  });

  test('keep for a phrase keyword what it leaves to an exact one', () => {
    const three = {
      ...account(),
      campaigns: [{ id: 'c1', adGroups: ['broad', 'phrase', 'exact'].map((id) => ({ id })) }],
      negatives: [
        at(here, 'bee hive', 'phrase'),
        { ...at({ kind: 'adGroup', id: 'phrase' }, 'bee hive'), id: 'n2' },
      ],
    };
    const routed = (...keywords: Parameters<typeof findRouting>[2]) =>
      findRouting(findConflicts({ account: three, keywords, served: [] }), three, keywords);
    const [broad, phrase, exact] = (['broad', 'phrase', 'exact'] as const).map((m) =>
      keyword(m, 'bee hive', m),
    );
    expect(routed(broad!, phrase!, exact!)).toEqual(['phrase', 'exact']);
    expect(routed(broad!, phrase!)).toEqual([null, null]);
  });

  test('never stop a query that no open keyword elsewhere takes', () => {
    const words = fc
      .array(fc.constantFrom('bee', 'hive', 'kit'), { minLength: 1, maxLength: 3 })
      .map((of) => of.join(' '));
    const match = fc.constantFrom(...MATCH_TYPES);
    const adGroup = fc.constantFrom('broad', 'exact');
    const keywords = fc
      .array(fc.tuple(adGroup, words, match), { minLength: 1, maxLength: 6 })
      .map((all) => all.map(([where, text, of], i) => ({ ...keyword(where, text, of), id: `k${i}` })));
    const place = fc.constantFrom<PlacedNegative['place']>(
      { kind: 'adGroup', id: 'broad' },
      { kind: 'campaign', id: 'c2' },
      { kind: 'account', id: null },
    );
    fc.assert(
      fc.property(keywords, words, match, place, words, (given, text, of, where, query) => {
        const asked = account(at(where, text, of));
        const conflicts = findConflicts({ account: asked, keywords: given, served: [] });
        const gate = compileAccountGate(asked);
        findRouting(conflicts, asked, given).forEach((seat, i) => {
          if (seat === null || !stops(asked.negatives[0]!, query)) return;
          const taking = given.find(({ id }) => id === seat)!;
          expect(stops(taking, query)).toBe(true);
          const isServed = given.some(
            (one) => stops(one, query) && gate.stoppers(query, one.adGroupId).length === 0,
          );
          expect(isServed).toBe(true);
          expect(taking.id).not.toBe(conflicts[i]!.keywordId);
        });
      }),
    );
  });
});

describe('a query that a negative stops', () => {
  const here = { kind: 'adGroup', id: 'broad' } as const;

  test('is left open where a keyword that says the same has it, and nothing stops it there', () => {
    const own = [keyword('exact', 'Bee Hive', 'exact')];
    const open = (...more: PlacedNegative[]) => compileLeftOpen(account(at(here), ...more), own);
    expect(open()(at(here), 'bee hive')).toBe('exact');
    expect(open()(at(here, 'bee hive', 'phrase'), 'blue bee hive')).toBeNull();
    expect(open()(at(here, 'hive'), 'hive')).toBeNull(); // no keyword says that
    expect(
      open({ ...at({ kind: 'account', id: null }, 'bee', 'broad'), id: 'n2' })(at(here), 'bee hive'),
    ).toBeNull();
  });
});
