import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import type { Change } from '@/core';
import { clockAt } from '@/server/clock';
import { KnotsLookSchema, type KnotKind, type Pile } from '@/contracts/knots';
import { DuplicatesQuerySchema } from '@/contracts/duplicates';
import { OverlapsQuerySchema } from '@/contracts/overlaps';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { workOnSet } from '@/server/use-cases/tray/work-on-set';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { viewDuplicates } from '@/server/use-cases/untangle/duplicates/view-duplicates';
import { leaveKnot, takeKnotBack } from '@/server/use-cases/untangle/knots/leave-knot';
import { lookAtKnots } from '@/server/use-cases/untangle/knots/look-at-knots';
import { viewOverlaps } from '@/server/use-cases/untangle/overlaps/view-overlaps';
import { viewMisspelt } from '@/server/use-cases/untangle/view-misspelt';
import { viewNeedless } from '@/server/use-cases/untangle/view-needless';
import { aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeEach(async () => {
  const { structure, ...seed } = aSeed();
  const [keyword] = structure.keywords;
  const negative = (id: string, text: string, match: 'exact' | 'phrase' | 'broad') => ({
    ...{ id, text, match, status: 'live' as const, createdAt: '2026-11-18T00:00:00Z' },
    place: { kind: 'account', id: null } as const,
  });
  world = await makeWorld({
    ...seed,
    structure: {
      ...structure,
      keywords: [...structure.keywords, { ...keyword!, id: 'K8', adGroupId: 'G2' }],
      negatives: [
        ...structure.negatives,
        negative('N1', 'poster', 'broad'),
        negative('N2', 'poster shop', 'phrase'),
        negative('N3', 'moovie', 'phrase'),
      ],
    },
  });
});
afterEach(() => world.close());

const days = 7;
/** What lies in a pile of a kind, by key. */
const PILES: Record<Exclude<KnotKind, 'conflict'>, (pile: Pile) => Promise<string[]>> = {
  needless: async (pile) => keys((await viewNeedless(world.deps, world.slug, { pile, days })).lines),
  misspelt: async (pile) => keys((await viewMisspelt(world.deps, world.slug, { pile, days })).lines),
  duplicate: async (pile) =>
    keys(
      (
        await viewDuplicates(
          world.deps,
          world.slug,
          v.parse(DuplicatesQuerySchema, { days: '7', pile, besides: 'paused' }),
        )
      ).lines,
    ),
  overlap: async (pile) =>
    (await viewOverlaps(world.deps, world.slug, v.parse(OverlapsQuerySchema, { days: '7', pile }))).lines.map(
      ({ term }) => term,
    ),
};
const keys = (lines: readonly { key: string }[]) => lines.map(({ key }) => key);
const leave = (kind: KnotKind, key: string) =>
  leaveKnot(world.deps, world.slug, world.personId, {
    ...{ kind, key, why: 'It is wanted so', until: null, days },
  });
const draft = (...changes: Change[]) =>
  draftChanges(
    world.deps,
    world.slug,
    world.personId,
    changes.map((change) => ({ change })),
  );

describe('a knot of any kind', () => {
  test.each(Object.keys(PILES) as (keyof typeof PILES)[])(
    'that is %s is left with a reason, and comes back by the ledger',
    async (kind) => {
      const [key = '', ...others] = await PILES[kind]('open');
      expect(key).not.toBe('');
      await leave(kind, key);
      expect(await PILES[kind]('open')).toEqual(others);
      expect(await PILES[kind]('left')).toEqual([key]);
      const { lines } = await viewLedger(world.deps, world.slug, { about: 'knot' });
      expect(lines[0]).toMatchObject({ what: expect.stringMatching(/^Leave “/), why: 'It is wanted so' });
      await undoEntry(world.deps, world.slug, world.personId, lines[0]!.id);
      expect(await PILES[kind]('left')).toEqual([]);
      expect(await PILES[kind]('open')).toContain(key);
      await expect(takeKnotBack(world.deps, world.slug, world.personId, { kind, key })).rejects.toThrow(
        /not left/,
      );
      await expect(leave(kind, kind === 'duplicate' ? '98-99' : 'nothing')).rejects.toThrow(/not there/);
    },
  );

  test('comes back when it is otherwise: a keyword of the group was paused', async () => {
    const [key = ''] = await PILES.duplicate('open');
    await leave('duplicate', key);
    expect(await PILES.duplicate('left')).toEqual([key]);
    await draft({ kind: 'pause keyword', keywordId: key.split('-')[0]! });
    expect(await PILES.duplicate('left')).toEqual([]);
    expect(await PILES.duplicate('open')).toContain(key);
  });
});

describe('what is put in the tray for a knot', () => {
  const place = { kind: 'account', id: null } as const;
  const removal: Change = { kind: 'remove negative', text: 'poster shop', match: 'phrase', place };
  const cover: Change = { kind: 'remove negative', text: 'poster', match: 'broad', place };
  const put = async (change: Change, kind: KnotKind, key: string) =>
    draftChanges(world.deps, world.slug, world.personId, [{ change, knot: { kind, key, days } }]);
  const leavePlatform = (text: string) =>
    world
      .db('negative')
      .where({ text })
      .delete()
      .then(() => world.db('account').increment({ data_version: 1 }));

  test('is refused where the account is otherwise by now', async () => {
    const [key = ''] = await PILES.needless('open');
    await draft(cover); // what covers it goes: it is needed
    const outcomes = await put(removal, 'needless', key);
    expect(outcomes).toEqual([{ outcome: 'refused', said: expect.stringContaining('Look again') }]);
    expect((await viewTray(world.deps, world.slug)).changes).toHaveLength(1);
  });

  test('is looked at again before it is sent', async () => {
    const [key = ''] = await PILES.needless('open');
    expect(await put(removal, 'needless', key)).toMatchObject([{ outcome: 'drafted' }]);
    await leavePlatform('poster');
    await expect(sendTray(world.deps, world.slug, world.personId)).rejects.toThrow(
      /Nothing was sent.*poster shop.*otherwise by now/,
    );
    const { changes } = await viewTray(world.deps, world.slug);
    expect(changes).toHaveLength(1);
    await removeFromTray(world.deps, world.slug, [changes[0]!.id]);
  });

  test('goes at its time, too: what waits for it does not mend its own knot beforehand', async () => {
    const [key = ''] = await PILES.needless('open');
    await put(removal, 'needless', key);
    const soon = new Date(Date.now() + 60_000);
    const setId = await sendTray(world.deps, world.slug, world.personId, { at: soon.toISOString() });
    const later = { ...world.deps, clock: clockAt(new Date(soon.getTime() + 1_000)) };
    await workOnSet(later, world.accountId, setId);
    const set = await world.db('change_set').where({ change_set_id: setId }).first('state');
    expect(set.state).not.toBe('draft');
    expect((await viewTray(world.deps, world.slug)).changes).toEqual([]);
  });

  test('is sent where everything is as it was', async () => {
    const [key = ''] = await PILES.needless('open');
    await put(removal, 'needless', key);
    const [twice = ''] = await PILES.duplicate('open');
    const [one = '', other = ''] = twice.split('-');
    await put({ kind: 'pause keyword', keywordId: one }, 'duplicate', twice);
    await sendTray(world.deps, world.slug, world.personId);
    await world.work();
    expect((await viewTray(world.deps, world.slug)).changes).toEqual([]);
    // The last one that runs is not ended for a knot that is none any more.
    await put({ kind: 'pause keyword', keywordId: other }, 'duplicate', twice);
    await expect(sendTray(world.deps, world.slug, world.personId)).rejects.toThrow(/otherwise by now/);
  });
});

describe('a look at the knots', () => {
  const look = async (personId = world.personId) => {
    const answer = await lookAtKnots(world.deps, world.slug, personId);
    expect(v.parse(KnotsLookSchema, answer)).toEqual(answer);
    return answer;
  };
  const freshIn = async (personId?: number) =>
    Object.values((await look(personId)).fresh).reduce((sum, of) => sum + of.length, 0);

  test('tells which came since the one before, to each person by himself', async () => {
    const place = { kind: 'account', id: null } as const;
    expect(await freshIn()).toBe(0); // the first look
    await draft({ kind: 'add negative', text: 'poster frame', match: 'phrase', place });
    const { fresh } = await look();
    expect(fresh).toMatchObject({ needless: [expect.stringContaining('poster frame')], duplicate: [] });
    expect((await look()).fresh).toEqual(fresh); // nothing else came
    const { person_id: other } = await world.db('person').where({ name: 'Tobias Finch' }).first();
    expect(await freshIn(other)).toBe(0);
    await draft({ kind: 'add negative', text: 'poster print', match: 'phrase', place });
    expect((await look()).fresh.needless).toEqual([expect.stringContaining('poster print')]);
    expect((await look(other)).fresh.needless).toEqual([expect.stringContaining('poster print')]);
  });

  test('notes how many there are on that day; what only the tray mends is there still', async () => {
    const [first] = (await look()).days;
    expect(first).toMatchObject({ day: '2026-11-22', needless: { count: 1 }, misspelt: { count: 1 } });
    expect(first!.overlap!.costMicros).toBeGreaterThan(0);
    await draft({
      ...{ kind: 'remove negative', text: 'poster shop', match: 'phrase' },
      place: { kind: 'account', id: null },
    });
    expect((await look()).days).toEqual([first]);
    const { changes } = await viewTray(world.deps, world.slug);
    await removeFromTray(world.deps, world.slug, [changes[0]!.id]);
    expect(await freshIn()).toBe(0); // what the tray had mended is no news
  });
});
