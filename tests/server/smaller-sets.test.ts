import { afterAll, beforeAll, expect, test } from 'vitest';
import * as v from 'valibot';
import { SmallerSetViewSchema, SmallerViewSchema } from '@/contracts/smaller';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { viewSmallerSet, viewSmallerSets } from '@/server/use-cases/untangle/smaller/view-smaller-sets';
import { aQuery, aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  const { structure, queries, ...seed } = aSeed();
  const negative = (id: string, text: string) => ({
    ...{ id, text, match: 'exact' as const, status: 'live' as const, createdAt: '2026-11-19T00:00:00Z' },
    place: { kind: 'campaign', id: 'C1' } as const,
  });
  const texts = ['bee hive poster', 'hive poster shop', 'poster of a bee hive'];
  world = await makeWorld({
    ...seed,
    queries: [...queries, ...texts.map((text) => aQuery(text, { daily: 60 }))],
    structure: {
      ...structure,
      negatives: [
        ...structure.negatives,
        ...texts.map((text, i) => negative(`N${i}`, text)),
        negative('N9', 'yacht hire'),
        { ...negative('N10', 'hive kit free'), createdAt: '2026-01-01T00:00:00Z' },
      ],
    },
  });
});
afterAll(() => world.close());

async function look() {
  const answer = await viewSmallerSets(world.deps, world.slug);
  expect(v.parse(SmallerViewSchema, answer)).toEqual(answer);
  return answer.lines;
}

test('negatives of a campaign that could be fewer are told, with what differs; put in the tray, they are', async () => {
  const [line, ...others] = await look();
  expect(others).toEqual([]);
  expect(line).toMatchObject({
    placeName: 'campaign Hives',
    before: 5,
    after: 2,
    terms: 3,
    idle: 1,
    fixed: 1,
  });
  const asked = { place: 'campaign', id: line!.place.id! } as const;
  const set = await viewSmallerSet(world.deps, world.slug, asked);
  expect(v.parse(SmallerSetViewSchema, set)).toEqual(set);
  expect(set.added.first).toEqual([{ text: 'poster', match: 'phrase' }]);
  expect(set.removed.count).toBe(4);
  expect(set.noMore.first).toContain('yacht hire');
  expect(set.fromThenOn.first).toContain('poster');
  const outcomes = await draftChanges(
    world.deps,
    world.slug,
    world.personId,
    set.changes.map((change) => ({ change })),
  );
  expect(outcomes.map(({ outcome }) => outcome)).toEqual(Array(5).fill('drafted'));
  expect(await look()).toEqual([]);
  await expect(viewSmallerSet(world.deps, world.slug, { place: 'campaign', id: '999' })).rejects.toThrow(
    /not there any more/,
  );
});
