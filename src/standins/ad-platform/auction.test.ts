import { describe, expect, test } from 'vitest';
import { compileAccountGate } from '@/core';
import type { Structure } from '@/contracts/platform';
import { drawWinner, openAuctions, type MatchedQuery, type Service } from './auction';
import { mixDay } from '../mixed';
import { termsOfService } from './store';

const query = (id: number, text: string) => ({
  ...{ id, text, daily: 400, ctr: 0.2, cvr: 0.1, valueMicros: 40_000_000, unreported: false },
  ...{ cpcMicros: 500_000, means: [], automaticIn: [] },
});
const match = (adGroupId: string, fit = 0.8) => ({ adGroupId, keywordId: `k-${adGroupId}`, fit });
const MATCHED: MatchedQuery[] = [
  { query: query(1, 'free hive plans'), matches: [match('g1'), match('g2')] },
  { query: query(2, 'bee hive'), matches: [match('g1')] },
];
const gateWith = (...places: { kind: 'adGroup' | 'campaign'; id: string }[]) =>
  compileAccountGate({
    campaigns: [{ id: 'c1', adGroups: [{ id: 'g1' }, { id: 'g2' }, { id: 'g3' }] }],
    lists: [],
    negatives: places.map((place, i) => ({ id: `n${i}`, text: 'free', match: 'broad', place })),
  });
const ALL_MAY: Service = {
  ...{ mayServe: () => true, bidOf: () => 1_000_000 },
  askedOf: () => ({ turn: null, budget: null }),
};

const winnersOf = (matched: MatchedQuery, service = ALL_MAY, gate = gateWith()) =>
  Array.from({ length: 4_000 }, (_, day) => {
    const [auction] = openAuctions([matched], gate, service);
    return auction && drawWinner(auction, mixDay(7, day, matched.query.id))!.adGroupId;
  });
const shareOf = (winners: readonly unknown[], of: string) =>
  winners.filter((winner) => winner === of).length / winners.length;

describe('who takes part', () => {
  const bidders = (gate = gateWith(), service: Partial<Service> = {}) =>
    openAuctions(MATCHED, gate, { ...ALL_MAY, ...service }).map((a) => [
      a.query.id,
      ...a.bidders.map((b) => b.adGroupId),
    ]);

  test('whoever matches and is not stopped; a query that nobody may serve is not served', () => {
    expect(bidders()).toEqual([
      [1, 'g1', 'g2'],
      [2, 'g1'],
    ]);
    expect(bidders(gateWith({ kind: 'adGroup', id: 'g1' }))).toEqual([
      [1, 'g2'],
      [2, 'g1'],
    ]);
    expect(bidders(gateWith({ kind: 'campaign', id: 'c1' }))).toEqual([[2, 'g1']]);
  });

  test('a keyword that is paused, or a product that is excluded, leaves it to others', () => {
    const mayServe: Service['mayServe'] = ({ adGroupId }) => adGroupId !== 'g1';
    expect(bidders(gateWith(), { mayServe })).toEqual([[1, 'g2']]);
  });

  test('each ad group by the best of its keywords', () => {
    const near = { ...match('g1', 0.9), keywordId: 'k-near' };
    const [auction] = openAuctions(
      [{ query: query(1, 'bee'), matches: [match('g1'), near] }],
      gateWith(),
      ALL_MAY,
    );
    expect(auction!.bidders.map((b) => b.keywordId)).toEqual(['k-near']);
  });
});

describe('who wins a day', () => {
  test('all as often who bid and fit the same; the nearer and the higher bid more often', () => {
    const alike = { query: query(1, 'bee hive'), matches: [match('g1'), match('g2')] };
    expect(shareOf(winnersOf(alike), 'g1')).toBeCloseTo(0.5, 1);
    const nearer = { query: query(1, 'bee hive'), matches: [match('g1', 0.9), match('g2', 0.6)] };
    expect(shareOf(winnersOf(nearer), 'g1')).toBeGreaterThan(0.85);
    const bidOf = (id: string | null) => (id === 'k-g1' ? 3_000_000 : 1_000_000);
    expect(shareOf(winnersOf(alike, { ...ALL_MAY, bidOf }), 'g1')).toBeCloseTo(0.75, 1);
  });

  test('when one is stopped, its days alone go to others', () => {
    const three = { query: query(1, 'free bee hive'), matches: ['g1', 'g2', 'g3'].map((g) => match(g)) };
    const before = winnersOf(three);
    const after = winnersOf(three, ALL_MAY, gateWith({ kind: 'adGroup', id: 'g2' }));
    expect(shareOf(before, 'g2')).toBeGreaterThan(0.2);
    before.forEach((winner, day) => {
      if (winner === 'g2') expect(['g1', 'g3']).toContain(after[day]);
      else expect(after[day]).toBe(winner);
    });
  });
});

describe('what is paused or ended', () => {
  const campaign = (id: string, status: string, endDate: string | null = null) => ({ id, status, endDate });
  const adGroup = (id: string, campaignId: string, status = 'live') => ({ id, campaignId, status });
  const structure = {
    campaigns: [campaign('c1', 'live'), campaign('c2', 'paused'), campaign('c3', 'live', '2026-11-10')],
    adGroups: [adGroup('g1', 'c1'), adGroup('g2', 'c2'), adGroup('g3', 'c3'), adGroup('g4', 'c1', 'paused')],
    ...{ keywords: [], exclusions: [] },
  } as unknown as Structure;

  test.each([
    ['g1', '2026-11-11', true],
    ['g2', '2026-11-11', false],
    ['g3', '2026-11-10', true],
    ['g3', '2026-11-11', false],
    ['g4', '2026-11-11', false],
  ])('%s on %s: served %s', (adGroupId, day, isServed) => {
    const { mayServe } = termsOfService(structure, day);
    expect(mayServe({ adGroupId, keywordId: null }, 'bee hive')).toBe(isServed);
  });
});

describe('campaigns with a priority', () => {
  const askedOf: Service['askedOf'] = (adGroupId) => {
    const turn = { g1: 1, g2: 2, g3: 2 }[adGroupId] ?? null;
    return { turn, budget: turn === null ? null : { id: adGroupId, micros: 1 } };
  };
  const inLanes = (...adGroups: string[]): MatchedQuery => ({
    query: query(1, 'free hive plans'),
    matches: adGroups.map((id) => match(id)),
  });
  const drawn = (matched: MatchedQuery, spent: string[] = [], gate = gateWith()) => {
    const [auction] = openAuctions([matched], gate, { ...ALL_MAY, askedOf });
    const isSpent = (budget: { id: string } | null) => budget !== null && spent.includes(budget.id);
    const winners = Array.from(
      { length: 200 },
      (_, day) => drawWinner(auction!, mixDay(7, day, 1), isSpent)?.adGroupId,
    );
    return [...new Set(winners)].sort();
  };

  test('are asked one after another: the first that may serve does, and of equals either', () => {
    expect(drawn(inLanes('g1', 'g2', 'g3'))).toEqual(['g1']);
    expect(drawn(inLanes('g2', 'g3'))).toEqual(['g2', 'g3']);
    expect(drawn(inLanes('g1', 'g2'), [], gateWith({ kind: 'adGroup', id: 'g1' }))).toEqual(['g2']);
  });

  test('pass a query on once their budget is spent, and to nobody where all are', () => {
    expect(drawn(inLanes('g1', 'g2', 'g3'), ['g1', 'g3'])).toEqual(['g2']);
    expect(drawn(inLanes('g1', 'g2'), ['g1', 'g2'])).toEqual([undefined]);
  });

  test('do not keep those without one from taking part', () => {
    expect(drawn(inLanes('g1', 'g2', 'g4'))).toEqual(['g1', 'g4']);
  });
});

test('what tells when a campaign is asked, and out of which budget', () => {
  const campaign = {
    ...{ name: 'Shopping', status: 'live' as const, channel: 'shopping', location: [], audience: [] },
    ...{ device: [], language: [], endDate: null, labels: [], budgetMicros: 20_000_000 },
  };
  const structure: Structure = {
    campaigns: [
      { ...campaign, id: 'c1', priority: 'high', sharedBudget: 'Hives' },
      { ...campaign, id: 'c2', priority: 'low', sharedBudget: null },
      { ...campaign, id: 'c3', priority: null, sharedBudget: 'Hives' },
    ],
    adGroups: ['1', '2', '3'].map((i) => ({ id: `g${i}`, campaignId: `c${i}`, name: 'All', status: 'live' })),
    ...{ keywords: [], lists: [], hangings: [], negatives: [], exclusions: [], placements: [] },
  };
  const { askedOf } = termsOfService(structure, '2026-11-20');
  expect(['g1', 'g2', 'g3'].map(askedOf)).toEqual([
    { turn: 1, budget: { id: 'shared Hives', micros: 20_000_000 } },
    { turn: 3, budget: { id: 'of c2', micros: 20_000_000 } },
    { turn: null, budget: null },
  ]);
});
