import { afterEach, beforeEach, expect, test } from 'vitest';
import { inverse, shiftDay, type Change } from '@/core';
import { createSnapshots } from '@/server/compute/snapshots';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { workOnSet } from '@/server/use-cases/tray/work-on-set';
import { makeWorld, type World } from '../support/world';

/** Few and many changes, far enough apart that a query for each could not hide. */
const [FEW, MANY] = [5, 800];
/** Statements write at most so many changes each. */
const BATCH = 500;
const batches = Math.ceil(MANY / BATCH);

let world: World;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

/** How many statements the database is asked while something is done. */
async function queriesOf(work: () => Promise<unknown>): Promise<number> {
  let count = 0;
  const note = () => (count += 1);
  world.db.on('query', note);
  await work();
  world.db.off('query', note);
  return count;
}

const stops = (count: number): Change[] =>
  Array.from({ length: count }, (_, i) => ({
    ...{ kind: 'add negative', text: `nothing sells ${i}`, match: 'phrase' },
    place: i % 2 === 0 ? { kind: 'account', id: null } : { kind: 'campaign', id: '1' },
  }));

async function draft(changes: readonly Change[]): Promise<void> {
  const outcomes = await draftChanges(
    world.deps,
    world.slug,
    world.personId,
    changes.map((change) => ({ change })),
  );
  expect(new Set(outcomes.map(({ outcome }) => outcome)).size).toBe(1);
}

test('drafting, and cancelling by the opposites, ask as much for many changes as for few', async () => {
  for (const changes of [(count: number) => stops(count), (count: number) => stops(count).map(inverse)]) {
    const [few, many] = [changes(FEW), changes(MANY).slice(FEW)];
    const asked = await queriesOf(() => draft(few));
    expect(await queriesOf(() => draft(many))).toBeLessThanOrEqual(asked + batches);
  }
  expect((await viewTray(world.deps, world.slug)).changes).toEqual([]);
});

test('the tray is opened, and changes are taken out of it, with as many statements for many as for few', async () => {
  await draft(stops(MANY));
  const ids = (await viewTray(world.deps, world.slug)).changes.map(({ id }) => id);
  const takeOut = (some: readonly number[]) => () => removeFromTray(world.deps, world.slug, some);
  const few = await queriesOf(takeOut(ids.slice(0, FEW)));
  expect(await queriesOf(() => viewTray(world.deps, world.slug))).toBeLessThan(25);
  expect(await queriesOf(takeOut(ids.slice(FEW)))).toBe(few);
});

/** Statements of a turn besides those of its batches: the set, the account, the mirror, and the next turn. */
const A_TURN = 16;

test('sending and reading back take a few statements for each request to the platform, and no more', async () => {
  const sendAll = async (changes: readonly Change[]) => {
    await draft(changes);
    const sending = await queriesOf(() => sendTray(world.deps, world.slug, world.personId));
    const { change_set_id: setId } = await world.db('change_set').where({ state: 'sending' }).first();
    const isConfirmed = async () =>
      (await world.db('change_set').where({ change_set_id: setId }).first()).state === 'confirmed';
    let [working, turns] = [0, 0];
    for (; !(await isConfirmed()); turns++)
      working += await queriesOf(() => workOnSet(world.deps, world.accountId, setId));
    return { sending, working, turns };
  };
  const few = await sendAll(stops(FEW));
  const many = await sendAll(stops(MANY).slice(FEW));
  expect(many.sending).toBe(few.sending);
  // 50, 100, 200 and the rest: three more requests to the platform, of eight statements each, and the larger writes
  // and what another turn asks before it begins.
  const turns = (many.turns - few.turns) * A_TURN;
  expect(many.turns).toBeLessThanOrEqual(2);
  expect(many.working).toBeLessThanOrEqual(few.working + 3 * 8 + 4 * batches + turns);
});

test('a page of the ledger asks as much whether its changes were sent on one day or on forty', async () => {
  await draft(stops(50));
  await sendTray(world.deps, world.slug, world.personId);
  await world.work();
  const page = () => viewLedger({ ...world.deps, snapshots: createSnapshots() }, world.slug);
  const { to } = (await viewTray(world.deps, world.slug)).window;
  await world.db('change_set').whereNotNull('sent_day').update({ sent_day: to });
  const onOne = await queriesOf(page);
  expect((await page()).lines.filter(({ change }) => change?.since)).not.toEqual([]);
  const sets = await world
    .db('change_set')
    .insert(
      Array.from({ length: 40 }, (_, i) => ({
        ...{ account_id: world.accountId, state: 'confirmed', sent_at: new Date(), sent_by: world.personId },
        sent_day: shiftDay(to, -i),
      })),
    )
    .returning<{ change_set_id: number }[]>('change_set_id');
  const changes = await world.db('change').where({ state: 'there' }).select('change_id');
  for (const [i, { change_set_id }] of sets.entries())
    await world.db('change').where({ change_id: changes[i]!.change_id }).update({ change_set_id });
  expect(await queriesOf(page)).toBe(onOne);
});
