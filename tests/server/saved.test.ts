import JSZip from 'jszip';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { shiftDay, type Change, type NegativeText, type Place } from '@/core';
import { fetchReport, moveClock } from '@/server/use-cases/intake/fetch-report';
import { viewSavedOfChange, viewSavedSoFar } from '@/server/use-cases/ledger/saved/view-saved';
import { undoSent } from '@/server/use-cases/ledger/undo-sent';
import { foreseeTray } from '@/server/use-cases/outlook/foresee-tray';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { setVerdict } from '@/server/use-cases/sift/set-verdict';
import { forClientSheet, viewForClient } from '@/server/use-cases/today/for-client';
import type { TrayOutlook } from '@/contracts/outlook';
import type { SavedFigures } from '@/contracts/saved';
import { aSeedServedElsewhere } from '../support/seed';
import { makeWorld, type World } from '../support/world';

let world: World;
let hives: Place;
let foreseen: TrayOutlook;
beforeAll(async () => {
  world = await makeWorld(aSeedServedElsewhere());
  const { campaign_id: id } = await world.db('campaign').where({ name: 'Hives' }).first();
  hives = { kind: 'campaign', id: String(id) };
});
afterAll(() => world.close());

const MOVIE: NegativeText = { text: 'bee hive movie', match: 'exact' };
const STAND: NegativeText = { text: 'hive stand movie', match: 'exact' };
const soFar = () => viewSavedSoFar(world.deps, world.slug);
const ofChange = (id: number) => viewSavedOfChange(world.deps, world.slug, id);
const draft = (...changes: Change[]) =>
  draftChanges(
    world.deps,
    world.slug,
    world.personId,
    changes.map((change) => ({ change })),
  );
const stop = (negative: NegativeText, place: Place): Change => ({ kind: 'add negative', ...negative, place });

async function send(): Promise<void> {
  await sendTray(world.deps, world.slug, world.personId);
  await world.work();
}

async function letPass(weeks: number): Promise<void> {
  for (let week = 0; week < weeks; week++) await moveClock(world.deps, world.slug, 7);
  await fetchReport(world.deps, world.slug, world.personId);
  await world.work();
}

const sumOf = (weeks: SavedFigures['weeks'], of: 'days' | 'predictedMicros' | 'realMicros') =>
  weeks.reduce((sum, week) => sum + (week[of] ?? 0), 0);

test('nothing is said to be saved before data have come of a day on which something acts', async () => {
  expect(await soFar()).toEqual({ soFar: null, changes: [] });
  await draft(stop(MOVIE, hives), stop(STAND, { kind: 'account', id: null }));
  foreseen = await foreseeTray(world.deps, world.slug);
  await send();
  expect(await soFar()).toEqual({ soFar: null, changes: [] });
  await expect(ofChange(1)).rejects.toThrow('Nothing is known yet');
});

test('what was predicted when it was sent is kept with it, and held against what it brought', async () => {
  await letPass(4);
  const { soFar: all, changes } = await soFar();
  expect(changes).toHaveLength(2);
  const { days } = all!;
  expect(all).toMatchObject({ trays: 1, changes: 2 });
  expect(all!.predictedMicros! / ((foreseen.netMicros / foreseen.days) * days)).toBeCloseTo(1);
  for (const { id, ...figures } of changes) {
    const foretold = foreseen.changes.find((one) => one.id === id)!;
    expect(figures.predictedMicros! / ((foretold.netMicros / foreseen.days) * days)).toBeCloseTo(1);
  }
  // Of all that is stopped a part comes back, so what is saved lies between nothing and all of it.
  expect(all!.realMicros).toBeGreaterThan(0);
  expect(all!.realMicros).toBeLessThan((1.3 * foreseen.stoppedMicros * days) / foreseen.days);
});

test('each change adds up: its weeks, its differences, and its tray', async () => {
  const { soFar: all, changes } = await soFar();
  const told = await Promise.all(changes.map(({ id }) => ofChange(id)));
  for (const one of told) {
    expect(sumOf(one.weeks, 'days')).toBe(one.days);
    expect(Math.abs(sumOf(one.weeks, 'realMicros') - one.realMicros)).toBeLessThan(10);
    expect(Math.abs(sumOf(one.weeks, 'predictedMicros') - one.predictedMicros!)).toBeLessThan(10);
    const difference = one.trafficMicros! - (one.backMicros - one.backPredictedMicros!) - one.stillMicros;
    expect(Math.abs(one.realMicros - one.predictedMicros! - difference)).toBeLessThan(10);
    expect(one.tray).toMatchObject({ changes: 2, realMicros: all!.realMicros });
    expect(new Date(`${one.weeks[1]!.from}T00:00:00Z`).getUTCDay()).toBe(1);
  }
  const [here, everywhere] = told;
  expect(here!.backMicros).toBeGreaterThan(here!.realMicros);
  expect(everywhere!.backMicros).toBe(0);
  expect(Math.abs(told.reduce((sum, one) => sum + one.realMicros, 0) - all!.realMicros)).toBeLessThan(10);
});

test('what came back is what is spent elsewhere beyond what was spent there before', async () => {
  const { id } = (await soFar()).changes[0]!;
  const { backMicros, days } = await ofChange(id);
  const { sent_day: sentDay } = await world.db('change_set').whereNotNull('sent_day').first();
  const elsewhere = async (from: string, to: string) => {
    const { rows } = await world.db.raw(
      `select coalesce(sum(f.cost_micros), 0)::float as cost from term_day f
         join term t on t.term_id = f.term_id join ad_group g on g.ad_group_id = f.ad_group_id
         join campaign c on c.campaign_id = g.campaign_id
        where t.key = ? and c.name <> 'Hives' and f.day between ? and ?`,
      [MOVIE.text, from, to],
    );
    return rows[0].cost as number;
  };
  const since = await elsewhere(shiftDay(sentDay, 1), '2099-01-01');
  const before = await elsewhere('2000-01-01', sentDay);
  const usual = (before / foreseen.days) * days; // give or take the traffic of its campaign
  expect(usual).toBeGreaterThan(0);
  expect(backMicros).toBeLessThan(since - 0.8 * usual);
  expect(backMicros).toBeGreaterThan(since - 1.3 * usual);
});

test('what somebody removes on the platform is told, and what is taken back here counts no longer', async () => {
  const [first, second] = (await soFar()).changes.map(({ id }) => id) as [number, number];
  expect(await ofChange(first)).toMatchObject({ isGone: false, isTakenBack: false });
  await world.db('negative').where({ text: MOVIE.text }).delete();
  await world.db('account').increment('data_version', 1);
  expect(await ofChange(first)).toMatchObject({ isGone: true, isTakenBack: false });

  const before = await ofChange(second);
  await undoSent(world.deps, world.slug, world.personId, second);
  await send();
  await letPass(2);
  const after = await ofChange(second);
  expect(after).toMatchObject({ isTakenBack: true });
  expect(after.to < (await ofChange(first)).to).toBe(true);
  expect(after.days).toBeGreaterThanOrEqual(before.days);
  expect(after.days).toBeLessThan((await ofChange(first)).days);
});

test('other forms of its words that are let through are named, with what they cost', async () => {
  const { to } = (await world.db('term_day').max('day as to').first()) as { to: string };
  const row = (text: string, day: string, cost: string) =>
    `${text},Hives,Starter,bee,broad,${day},90,9,${cost},0`;
  const head = 'Search term,Campaign,Ad group,Keyword,Match type,Day,Impr.,Clicks,Cost,Conversions';
  await world.load(
    [head, row('okapi lamp', shiftDay(to, -3), '4.00'), row('okapi lamps', shiftDay(to, -3), '2.00')].join(
      '\n',
    ),
  );
  await draft(stop({ text: 'okapi lamp', match: 'phrase' }, { kind: 'account', id: null }));
  await send();
  await world
    .db('change_set')
    .whereNotNull('sent_day')
    .where({ sent_day: shiftDay(to, 2) });
  await letPass(1);
  const newest = ((await world.db('term_day').max('day as to').first()) as { to: string }).to;
  await world.load([head, row('okapi lamps', newest, '3.50')].join('\n'));
  const { id } = (await soFar()).changes.at(-1)!;
  const { otherForms } = await ofChange(id);
  expect(otherForms).toMatchObject({
    costMicros: 3_500_000,
    first: [{ text: 'okapi lamps', costMicros: 3_500_000 }],
  });
  expect(otherForms.beforeMicros).toBeGreaterThan(0);
});

test('the page for the client says of its days what was stopped, what that saved in them, and what is kept', async () => {
  const { soFar: all } = await soFar();
  const since = all!.since;
  await setVerdict(world.deps, world.slug, world.personId, {
    raw: 'bee hive kit',
    verdict: { is: 'kept', note: 'our best' },
  });
  const newest = await world.db('term_day').where({ account_id: world.accountId }).max('day as day').first();
  const ask = (from: string, to: string) => viewForClient(world.deps, world.slug, { from, to });
  const whole = await ask(since, String(newest!.day));
  expect(whole.savedMicros! / all!.realMicros).toBeCloseTo(1, 4);
  expect(whole.stops.map(({ said }) => said).join()).toContain('bee hive movie');
  expect(whole.kept).toMatchObject([{ text: 'bee hive kit', note: 'our best' }]);
  expect(whole.days.reduce((sum, day) => sum + day.returnedMicros, 0)).toBe(whole.returnedMicros);
  expect(whole.days.reduce((sum, day) => sum + day.returnedMicros + day.openMicros, 0)).toBe(
    whole.costMicros,
  );
  // Two ranges that meet add up to the whole.
  const middle = shiftDay(since, 10);
  const parts = [await ask(since, middle), await ask(shiftDay(middle, 1), String(newest!.day))];
  const saved = parts.reduce((sum, part) => sum + part.savedMicros!, 0);
  expect(Math.abs(saved - whole.savedMicros!)).toBeLessThanOrEqual(2);
  const none = await ask(shiftDay(since, -20), shiftDay(since, -10));
  expect(none.stops).toEqual([]);
  expect(none.savedMicros ?? 0).toBe(0);
  const sheet = await forClientSheet(world.deps, world.slug, { from: since, to: middle });
  expect(sheet.name).toContain(middle);
  const book = await JSZip.loadAsync(sheet.content);
  expect(Object.keys(book.files).filter((name) => name.startsWith('xl/worksheets/sheet'))).toHaveLength(3);
});
