import { afterAll, beforeAll, expect, test } from 'vitest';
import type { NegativeText, Place } from '@/core';
import { weighRows } from '@/server/compute/workbench';
import { findAccount } from '@/server/repositories/account/accounts';
import { fetchReport, moveClock } from '@/server/use-cases/intake/fetch-report';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { openWorkbench } from '@/server/use-cases/open-workbench';
import { foreseeChoice } from '@/server/use-cases/outlook/foresee-choice';
import { foreseeTray } from '@/server/use-cases/outlook/foresee-tray';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { aSeedServedElsewhere } from '../support/seed';
import { makeWorld, type World } from '../support/world';

let world: World;
let hives: Place;
beforeAll(async () => {
  world = await makeWorld(aSeedServedElsewhere());
  hives = { kind: 'campaign', id: await idOf('Hives') };
});
afterAll(() => world.close());

const idOf = async (name: string) => String((await world.db('campaign').where({ name }).first()).campaign_id);
const MOVIE: NegativeText = { text: 'bee hive movie', match: 'exact' };
const foresee = (place: Place, negative = MOVIE) =>
  foreseeChoice(world.deps, world.slug, { negative, place });
const draft = (...places: Place[]) =>
  draftChanges(
    world.deps,
    world.slug,
    world.personId,
    places.map((place) => ({ change: { kind: 'add negative', ...MOVIE, place } })),
  );

async function emptyTray(): Promise<void> {
  const { changes } = await viewTray(world.deps, world.slug);
  await removeFromTray(
    world.deps,
    world.slug,
    changes.map(({ id }) => id),
  );
}

test('a stop says where its query comes back; everywhere at once, it comes back nowhere', async () => {
  const there = await foresee(hives);
  expect(there.back.map(({ name }) => name)).toEqual(['Courses']);
  expect(there.back[0]!.negatives).toEqual([MOVIE]);
  expect(there.netMicros).toBeLessThan(there.stoppedMicros / 3);
  expect(there.seen).toBe(1);
  const everywhere = await foresee({ kind: 'account', id: null });
  expect(everywhere.back).toEqual([]);
  expect(everywhere.netMicros).toBe(everywhere.stoppedMicros);
  expect(everywhere.stoppedMicros).toBeGreaterThan(there.stoppedMicros);
});

test('a paused place takes nothing over', async () => {
  const setStatus = async (status: string) => {
    await world.db('campaign').where({ name: 'Courses' }).update({ status });
    await world.db('account').increment('data_version', 1);
  };
  await setStatus('paused');
  const paused = await foresee(hives);
  await setStatus('live');
  expect(paused.back).toEqual([]);
  expect(paused.netMicros).toBe(paused.stoppedMicros);
});

test('the tray says the same of its changes, and nothing comes back where it stops it, too', async () => {
  await draft(hives);
  const alone = await foreseeTray(world.deps, world.slug);
  expect(alone.changes).toHaveLength(1);
  expect(alone.back.map(({ name }) => name)).toEqual(['Courses']);
  await draft(alone.back[0]!.place);
  const both = await foreseeTray(world.deps, world.slug);
  expect(both.changes).toHaveLength(2);
  expect(both.back).toEqual([]);
  expect(both.netMicros).toBeCloseTo(both.stoppedMicros);
  expect(both.changes.reduce((sum, c) => sum + c.netMicros, 0)).toBeCloseTo(both.netMicros);
  await emptyTray();
});

test('what the tray stops and what it leaves is what there was', async () => {
  await draft(hives);
  const account = (await findAccount(world.db, world.slug))!;
  const { snapshot, draft: drafted, awaited } = await openWorkbench(world.deps, account);
  const rows = Array.from({ length: snapshot.rows.count }, (_, r) => r);
  const costOf = (some: readonly number[]) => weighRows(snapshot, some).costMicros ?? 0;
  const open = (gate: typeof awaited) => rows.filter((r) => gate.stopCount(r) === 0);
  expect(drafted.stopped.length).toBeGreaterThan(0);
  expect(costOf(drafted.stopped) + costOf(open(drafted.gate))).toBe(costOf(open(awaited)));
  const { stoppedMicros, netMicros, back } = await foreseeTray(world.deps, world.slug);
  const backMicros = back.reduce((sum, { costMicros }) => sum + costMicros, 0);
  expect(netMicros + backMicros).toBeCloseTo(stoppedMicros, 0);
  // Drawn towards what all of it brought together, it stays about what it was.
  expect(stoppedMicros / costOf(drafted.stopped)).toBeGreaterThan(0.7);
  expect(stoppedMicros / costOf(drafted.stopped)).toBeLessThan(1.3);
  await emptyTray();
});

test('weeks later it came so: nothing here, and about so much elsewhere', async () => {
  await draft(hives);
  const { netMicros, stoppedMicros, days } = await foreseeTray(world.deps, world.slug);
  await sendTray(world.deps, world.slug, world.personId);
  await world.work();
  for (let week = 0; week < 4; week++) await moveClock(world.deps, world.slug, 7);
  await fetchReport(world.deps, world.slug, world.personId);
  await world.work();
  const [line] = (await viewLedger(world.deps, world.slug)).lines.filter(({ change }) => change?.since);
  const { since } = line!.change!;
  expect(since!.here.terms).toBe(0);
  const predicted = ((stoppedMicros - netMicros) / days) * since!.days;
  expect(since!.elsewhere.costMicros! / predicted).toBeGreaterThan(0.5);
  expect(since!.elsewhere.costMicros! / predicted).toBeLessThan(2);
});
