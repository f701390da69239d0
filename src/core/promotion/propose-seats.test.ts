import { expect, test } from 'vitest';
import type { MatchType } from '../gate';
import { proposeSeats, type SeatCandidate } from './propose-seats';

const adGroup = (id: string, name: string, ...matches: MatchType[]): SeatCandidate => ({
  ...{ id, name, campaign: 'Hives', keywords: matches.map((match) => ({ match })) },
});

test('a name that says the match type goes before what the ad group holds', () => {
  expect(
    proposeSeats([
      adGroup('g1', 'Hives – Exact', 'broad', 'broad'),
      adGroup('g2', 'Hives (phrase)', 'exact'),
      adGroup('g3', 'Hives', 'broad', 'broad', 'exact'),
    ]),
  ).toEqual({ exact: 'g1', phrase: 'g2', broad: 'g3' });
});

test('the campaign’s name tells where the ad group’s does not', () => {
  expect(proposeSeats([{ ...adGroup('g1', 'Hives', 'broad'), campaign: 'Shop exact' }]).exact).toBe('g1');
  expect(proposeSeats([{ ...adGroup('g1', 'Hives broad'), campaign: 'Shop exact' }])).toEqual({
    ...{ exact: null, phrase: null, broad: 'g1' },
  });
});

test('an ad group of several match types, by name or by content, is no seat', () => {
  expect(
    proposeSeats([
      adGroup('g1', 'exact and phrase', 'exact'),
      adGroup('g2', 'Hives', 'exact', 'phrase'),
      adGroup('g3', 'Empty'),
      adGroup('g4', 'Exactly so'),
    ]),
  ).toEqual({ exact: null, phrase: null, broad: null });
});

test('of several the one with most keywords of the match type, of equals the first', () => {
  const seats = proposeSeats([
    adGroup('g1', 'Hives exact', 'exact', 'broad', 'broad'),
    adGroup('g2', 'Stands exact', 'exact', 'exact'),
    adGroup('g3', 'Tools exact', 'exact', 'exact'),
  ]);
  expect(seats.exact).toBe('g2');
});

test('a name goes before what an ad group holds, however much that is', () => {
  expect(
    proposeSeats([adGroup('g1', 'Hives', 'exact', 'exact', 'exact'), adGroup('g2', 'Hives exact')]).exact,
  ).toBe('g2');
});
