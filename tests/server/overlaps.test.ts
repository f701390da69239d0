import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { OverlapsQuerySchema, OverlapsViewSchema, SeatingsViewSchema } from '@/contracts/overlaps';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { viewOverlaps, viewSeatings } from '@/server/use-cases/untangle/overlaps/view-overlaps';
import { aQuery, aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  const { structure, queries } = aSeed();
  const keyword = structure.keywords[0]!;
  world = await makeWorld(
    aSeed({
      structure: {
        ...structure,
        keywords: [
          ...structure.keywords,
          { ...keyword, id: 'K5', adGroupId: 'G2', bidMicros: 690_000 },
          { ...keyword, id: 'K6', adGroupId: 'G3', bidMicros: 690_000 },
        ],
      },
      queries: [...queries, aQuery('bee hive toy', { daily: 40 })],
    }),
  );
});
afterAll(() => world.close());

async function view(asked: v.InferInput<typeof OverlapsQuerySchema> = {}) {
  const answer = await viewOverlaps(
    world.deps,
    world.slug,
    v.parse(OverlapsQuerySchema, { days: '7', ...asked }),
  );
  expect(v.parse(OverlapsViewSchema, answer)).toEqual(answer);
  return answer;
}
async function seatings(term: string, keeps?: string) {
  const line = (await view()).lines.find((one) => one.term === term)!;
  const adGroupId = keeps ?? line.servers[0]!.adGroupId;
  const answer = await viewSeatings(world.deps, world.slug, { term, keeps: adGroupId, days: 7 });
  expect(v.parse(SeatingsViewSchema, answer)).toEqual(answer);
  return answer;
}

describe('search terms that several ad groups serve', () => {
  test('are told with what each place brought, what costs most elsewhere first', async () => {
    const { lines, counts, elsewhereMicros } = await view();
    expect(counts).toEqual({ open: lines.length, left: 0 });
    expect(lines.map(({ term }) => term)).toContain('bee hive kit');
    expect(lines.map(({ term }) => term)).not.toContain('bee course salary');
    const elsewhere = lines.map(({ servers }) => servers.slice(1).reduce((sum, s) => sum + s.costMicros, 0));
    expect(elsewhere).toEqual(elsewhere.toSorted((a, b) => b - a));
    expect(elsewhereMicros).toBe(elsewhere.reduce((sum, cost) => sum + cost, 0));
    for (const { servers } of lines) {
      expect(servers.length).toBeGreaterThan(1);
      expect(servers.every(({ clicks }) => clicks > 0)).toBe(true);
    }
    const [kit] = lines.filter(({ term }) => term === 'bee hive kit');
    expect(kit!.servers[0]!.expectedMicros).toBeLessThan(kit!.servers[1]!.expectedMicros!);
  });

  test('are told between campaigns, and from so many clicks on, where that is asked', async () => {
    const between = await view({ between: 'campaigns' });
    expect(between.lines.length).toBeGreaterThan(0);
    for (const { servers } of between.lines)
      expect(new Set(servers.map(({ campaign }) => campaign)).size).toBeGreaterThan(1);
    expect((await view({ clicks: '100000' })).counts.open).toBe(0);
  });
});

describe('campaigns that never meet', () => {
  const cut = async (location: string[], name: string) => {
    await world.db('campaign').where({ name }).update({ location });
    await world.db('account').increment({ data_version: 1 });
  };

  test('share no query, and lose none to each other', async () => {
    await cut(['GB-N'], 'Hives');
    await cut(['GB-S'], 'Courses');
    const { lines } = await view();
    for (const { servers } of lines) expect(servers.map(({ campaign }) => campaign)).not.toContain('Courses');
    expect((await view({ between: 'campaigns' })).lines).toEqual([]);
    await cut([], 'Hives');
    await cut([], 'Courses');
    expect((await view({ between: 'campaigns' })).lines.length).toBeGreaterThan(0);
  });
});

describe('giving a term to one ad group', () => {
  test('tells what each way stops: the term in the other places, and by phrase longer ones', async () => {
    const line = (await view()).lines.find(({ term }) => term === 'bee hive toy')!;
    const { ways, isProtected } = await seatings('bee hive toy');
    expect(isProtected).toBe(false);
    const [exact] = ways;
    expect([exact!.match, exact!.where]).toEqual(['exact', 'ad groups']);
    expect(exact!.changes).toHaveLength(line.servers.length - 1);
    expect(exact!.stops).toMatchObject({
      ...{ terms: 1, costMicros: line.servers.slice(1).reduce((sum, s) => sum + s.costMicros, 0) },
    });
    expect(exact!.alsoStops.count).toBe(0);
    expect(exact!.hits.count).toBe(0);
  });

  test('put in the tray, the term is served by one alone, and is no overlap any more', async () => {
    const { ways } = await seatings('bee hive toy');
    const outcomes = await draftChanges(
      ...([world.deps, world.slug, world.personId] as const),
      ways[0]!.changes.map(({ change }) => ({ change })),
    );
    expect((await view()).lines.map(({ term }) => term)).not.toContain('bee hive toy');
    await removeFromTray(
      ...([world.deps, world.slug] as const),
      outcomes.flatMap((one) => (one.outcome === 'drafted' ? one.changeId : [])),
    );
    expect((await view()).lines.map(({ term }) => term)).toContain('bee hive toy');
  });

  test('a term that converted is protected, and is held back without a reason; a way that would hit another one says so', async () => {
    const kit = await seatings('bee hive kit');
    expect(kit.isProtected).toBe(true);
    expect(kit.ways[0]!.hits.count).toBe(0);
    const [way] = kit.ways;
    const [held] = await draftChanges(world.deps, world.slug, world.personId, [
      { change: way!.changes[0]!.change },
    ]);
    expect(held!.outcome).toBe('held back');
  });

  test('is refused where nothing serves the term any more', async () => {
    await expect(
      viewSeatings(world.deps, world.slug, { term: 'no such thing', keeps: '1', days: 7 }),
    ).rejects.toThrow('is not served there any more');
  });
});
