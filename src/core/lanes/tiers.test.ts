import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { stops } from '../gate';
import { aText } from '../gate/testing';
import { compileLanes, planLanes, routeQuery, type Tier } from './tiers';
import { aPlan } from './testing';

const PLAN: Tier[] = [
  { id: 'all', entryTerms: ['of no account here'] },
  { id: 'makers', entryTerms: ['Pellwright', 'Oast & Rowe'] },
  { id: 'numbers', entryTerms: ['Pellwright 40', 'no. 7'] },
];

describe('a query', () => {
  test.each([
    ['hive stand', 'all'],
    ['smoker by PELLWRIGHT', 'makers'],
    ['oast & rowe veil', 'makers'],
    ['oast rowe veil', 'all'],
    ['pellwright 40 smoker', 'numbers'],
    ['40 pellwright', 'makers'],
    ['smoker no 7', 'numbers'],
    ['of no account here', 'all'],
    ['', 'all'],
  ])('“%s” lands in the last tier whose entry terms it holds, or in the first: %s', (query, tier) => {
    expect(routeQuery(PLAN, query)).toBe(tier);
  });

  test('is let in by the entry term of that tier', () => {
    const lanes = compileLanes(PLAN);
    expect(lanes.entryTermOf('pellwright 40')).toEqual({ text: 'pellwright 40', match: 'phrase', tier: 2 });
    expect(lanes.entryTermOf('hive')).toBeNull();
  });
});

test('each tier needs the entry terms of all later ones, each once, and the last none', () => {
  expect(planLanes(PLAN)).toEqual({
    all: ['pellwright', 'oast & rowe', 'pellwright 40', 'no 7'],
    makers: ['pellwright 40', 'no 7'],
    numbers: [],
  });
  const twice = [
    { id: 'a', entryTerms: [] },
    { id: 'b', entryTerms: ['Kit', 'kit!', '?!'] },
    { id: 'c', entryTerms: ['kit'] },
  ];
  expect(planLanes(twice)).toEqual({ a: ['kit'], b: ['kit'], c: [] });
});

test('by match type: an exact keyword keeps its own text, a phrase keyword what holds it', () => {
  const seats: Tier[] = [
    { id: 'broad', entryTerms: [] },
    { id: 'phrase', entryTerms: ['bee hive', 'hive kit'] },
    { id: 'exact', entryTerms: ['bee hive', 'cedar hive'], entryMatch: 'exact' },
  ];
  const { needs } = compileLanes(seats);
  expect(needs[0]).toEqual([
    { text: 'bee hive', match: 'phrase' },
    { text: 'hive kit', match: 'phrase' },
    { text: 'bee hive', match: 'exact' },
    { text: 'cedar hive', match: 'exact' },
  ]);
  expect(needs[1]).toEqual([
    { text: 'bee hive', match: 'exact' },
    { text: 'cedar hive', match: 'exact' },
  ]);
  const landing = ['bee hive', 'bee hive stand', 'cedar hive', 'cedar hive stand'];
  expect(landing.map((query) => routeQuery(seats, query))).toEqual(['exact', 'phrase', 'exact', 'broad']);
});

test('once every tier has its needs, the first tier that stops a query no more is the one where it lands', () => {
  fc.assert(
    fc.property(aPlan(), aText(), (tiers, query) => {
      const { needs, route } = compileLanes(tiers);
      const enters = needs.findIndex((negatives) => !negatives.some((negative) => stops(negative, query)));
      expect(route(query)).toBe(enters);
      expect(tiers[enters]!.id).toBe(routeQuery(tiers, query));
    }),
  );
});

test('it lands in the last tier that lets it in, by the readable rule', () => {
  fc.assert(
    fc.property(aPlan(), aText(), (tiers, query) => {
      const letsIn = ({ entryTerms, entryMatch: match = 'phrase' }: Tier) =>
        entryTerms.some((text) => stops({ text, match }, query));
      const last = tiers.findLastIndex((tier, number) => number > 0 && letsIn(tier));
      expect(compileLanes(tiers).route(query)).toBe(Math.max(0, last));
    }),
  );
});

test.each([
  [[], 'needs a tier'],
  [
    [
      { id: 'a', entryTerms: [] },
      { id: 'a', entryTerms: [] },
    ],
    'an id of its own',
  ],
])('a plan that is none is refused: %j', (tiers, says) => {
  expect(() => compileLanes(tiers)).toThrow(says);
});
