import { describe, expect, test } from 'vitest';
import { compileAccountGate } from '@/core';
import type { Structure } from '@/contracts/platform';
import { termsOfService } from './store';
import { makeDay, routeQueries, type Service } from './traffic';

const QUERIES = [
  { id: 1, text: 'free hive plans', at: ['g1', 'g2'] },
  { id: 2, text: 'bee hive', at: ['g1'] },
].map(({ id, text, at }) => ({
  ...{ id, text, daily: 400, ctr: 0.2, cvr: 0.1, valueMicros: 40_000_000, unreported: false },
  candidates: at.map((adGroupId) => ({ adGroupId, keywordId: `k-${adGroupId}`, cpcMicros: 500_000 })),
}));
const gateWith = (...places: { kind: 'adGroup' | 'campaign'; id: string }[]) =>
  compileAccountGate({
    campaigns: [{ id: 'c1', adGroups: [{ id: 'g1' }, { id: 'g2' }] }],
    lists: [],
    negatives: places.map((place, i) => ({ id: `n${i}`, text: 'free', match: 'broad', place })),
  });

const ALL_MAY: Service = { mayServe: () => true, bidOf: () => undefined };

describe('where a query is served', () => {
  test('in its first ad group while nothing stops it there', () => {
    expect(routeQueries(QUERIES, gateWith(), ALL_MAY).map((r) => [r.candidate.adGroupId, r.share])).toEqual([
      ['g1', 1],
      ['g1', 1],
    ]);
  });

  test('in the next when it is stopped in the first, with a smaller share', () => {
    const [fallen] = routeQueries(QUERIES, gateWith({ kind: 'adGroup', id: 'g1' }), ALL_MAY);
    expect(fallen!.candidate.adGroupId).toBe('g2');
    expect(fallen!.share).toBeLessThan(1);
  });

  test('nowhere when it is stopped everywhere', () => {
    const routes = routeQueries(QUERIES, gateWith({ kind: 'campaign', id: 'c1' }), ALL_MAY);
    expect(routes.map((r) => r.query.text)).toEqual(['bee hive']);
  });
});

describe('what else decides where a query is served', () => {
  const shares = (service: Partial<Service>) =>
    routeQueries(QUERIES, gateWith(), { ...ALL_MAY, ...service }).map(({ candidate, share }) => ({
      ...{ at: candidate.adGroupId, share, cpcMicros: candidate.cpcMicros },
    }));

  test('a keyword that is paused, or a product that is excluded, leaves it to the next', () => {
    const [first] = shares({ mayServe: ({ adGroupId }) => adGroupId !== 'g1' });
    expect(first!.at).toBe('g2');
  });

  test('a bid below what clicks cost wins less, and pays less', () => {
    const [first] = shares({ bidOf: () => 250_000 });
    expect(first).toEqual({ at: 'g1', share: 0.5, cpcMicros: 250_000 });
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
    expect(mayServe({ adGroupId, keywordId: null, cpcMicros: 1 }, 'bee hive')).toBe(isServed);
  });
});

describe('a day of traffic', () => {
  const routes = routeQueries(QUERIES, gateWith(), ALL_MAY);

  test('is the same for the same seed and day, and another for others', () => {
    expect(makeDay(routes, '2026-11-02', 7)).toEqual(makeDay(routes, '2026-11-02', 7));
    expect(makeDay(routes, '2026-11-02', 7)).not.toEqual(makeDay(routes, '2026-11-03', 7));
    expect(makeDay(routes, '2026-11-02', 7)).not.toEqual(makeDay(routes, '2026-11-02', 8));
  });

  test('of one query does not change when another is stopped', () => {
    const all = makeDay(routes, '2026-11-02', 7).find((d) => d.queryId === 2);
    const alone = makeDay(routes.slice(1), '2026-11-02', 7).find((d) => d.queryId === 2);
    expect(alone).toEqual(all);
  });

  test('keeps its figures in order, and its conversions only grow', () => {
    for (let day = 1; day <= 28; day++) {
      for (const served of makeDay(routes, `2026-11-${String(day).padStart(2, '0')}`, 7)) {
        expect(served.clicks).toBeLessThanOrEqual(served.impressions);
        const [first, second, last] = served.conversions;
        expect(first).toBeLessThanOrEqual(second);
        expect(second).toBeLessThanOrEqual(last);
        expect(last).toBeLessThanOrEqual(served.clicks);
        expect(Number.isInteger(served.costMicros)).toBe(true);
      }
    }
  });

  test('follows the rates it was given, over many days', () => {
    let [impressions, clicks] = [0, 0];
    for (let day = 1; day <= 28; day++) {
      for (const served of makeDay(routes, `2026-11-${String(day).padStart(2, '0')}`, 7)) {
        impressions += served.impressions;
        clicks += served.clicks;
      }
    }
    expect(impressions / (28 * 2 * 400)).toBeCloseTo(1, 1);
    expect(clicks / impressions).toBeCloseTo(0.2, 1);
  });
});
