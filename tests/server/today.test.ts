import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { shiftDay, type Change } from '@/core';
import type { Today } from '@/contracts/today';
import { fetchReport, moveClock } from '@/server/use-cases/intake/fetch-report';
import { setEndDate } from '@/server/use-cases/tray/end-dates';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { openWorkbench, requireAccount } from '@/server/use-cases/open-workbench';
import { viewRegrets } from '@/server/use-cases/today/regrets';
import { viewEnding } from '@/server/use-cases/today/view-ending';
import { viewSavedOfToday } from '@/server/use-cases/today/view-saved';
import { viewToday } from '@/server/use-cases/today/view-today';
import { lookAtToday, viewNews } from '@/server/use-cases/today/what-is-new';
import { viewNext } from '@/server/use-cases/today/what-next';
import { viewSavedSoFar } from '@/server/use-cases/ledger/saved/view-saved';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

const stop = (text: string): Change => ({
  ...{ kind: 'add negative', text, match: 'phrase', place: { kind: 'account', id: null } },
});
async function draft(...changes: Change[]): Promise<number[]> {
  const wanted = changes.map((change) => ({ change }));
  const outcomes = await draftChanges(world.deps, world.slug, world.personId, wanted);
  return outcomes.map((one) => (one.outcome === 'drafted' ? one.changeId : 0));
}
async function send(...changes: Change[]) {
  const ids = await draft(...changes);
  await sendTray(world.deps, world.slug, world.personId);
  await world.work();
  return ids;
}
async function weeksPass(weeks: number) {
  for (let week = 0; week < weeks; week++) await moveClock(world.deps, world.slug, 7);
  await fetchReport(world.deps, world.slug, world.personId);
  await world.work();
}
const today = () => viewToday(world.deps, world.slug);
const saved = () => viewSavedOfToday(world.deps, world.slug);
const report = (rows: readonly string[]) =>
  ['day,campaign,ad group,search term,impressions,clicks,cost,conversions', ...rows].join('\n');
const dataTo = async () => String((await world.db('term_day').max('day as day').first())?.day);

describe('what flowed and what was saved', () => {
  test('each day is what the facts of that day sum up to', async () => {
    const { days } = await today();
    const facts = await world
      .db('term_day')
      .groupBy('day')
      .select('day', world.db.raw('sum(cost_micros)::bigint as cost'));
    const costOn = new Map(facts.map(({ day, cost }) => [day, cost]));
    expect(days.length).toBeGreaterThan(0);
    for (const { day, returnedMicros, openMicros } of days)
      expect(returnedMicros + openMicros).toBe(costOn.get(day) ?? 0);
    expect(await saved()).toEqual({ soFar: null, trays: [], days: [] });
  });

  test('the database sums the days as the window does, for a look-back and for days of a person', async () => {
    const before = await today();
    // What one term converted is taken back on its last day: it returned nothing.
    const { term_id: term } = await world
      .db('term_day')
      .whereBetween('day', [before.window.from, before.window.to])
      .groupBy('term_id')
      .havingRaw('sum(conversions) > 0 and count(*) > 1')
      .orderBy('term_id')
      .first('term_id');
    await world.db.raw(
      `update term_day set conversions = -(select sum(conversions) from term_day where term_id = :term and day >= :from) + coalesce(conversions, 0)
        where term_id = :term and ctid = (select max(ctid) from term_day where term_id = :term and day between :from and :to)`,
      { term, ...before.window },
    );
    await world.db('packed_day').delete();
    await world.db('account').increment('facts_version', 1).increment('data_version', 1);
    const returned = (days: Today['days']) =>
      days.reduce((sum, { returnedMicros }) => sum + returnedMicros, 0);
    expect(returned((await today()).days)).toBeLessThan(returned(before.days));
    const someDays = { from: shiftDay(before.window.to, -9), to: shiftDay(before.window.to, -3) };
    for (const asked of [undefined, 7, someDays]) {
      const account = await requireAccount(world.deps, world.slug);
      const { snapshot } = await openWorkbench(world.deps, account, asked);
      const { window, days } = await viewToday(world.deps, world.slug, asked);
      expect(window).toEqual(snapshot.window);
      expect(days).toEqual(
        snapshot.days.map(({ day, costMicros, returnedMicros }) => ({
          ...{ day, returnedMicros, openMicros: costMicros - returnedMicros },
        })),
      );
    }
  });

  test('the trays add up to what was saved so far, and the days to what was saved in them', async () => {
    await send(stop('movie'));
    await weeksPass(1);
    await send(stop('plans'), stop('meme'));
    await weeksPass(2);
    const { soFar, trays, days } = await saved();
    expect(trays.map(({ letter, changes }) => [letter, changes])).toEqual([
      ['B', 2],
      ['A', 1],
    ]);
    const known = (await viewSavedSoFar(world.deps, world.slug)).soFar!;
    expect(soFar).toMatchObject({ realMicros: known.realMicros, predictedMicros: known.predictedMicros });
    const sum = trays.reduce((all, { realMicros }) => all + realMicros, 0);
    expect(Math.abs(sum - known.realMicros)).toBeLessThanOrEqual(trays.length);
    // Nothing is stopped before the first tray acts; from then on each day has its part.
    expect(days[0]!.day).toBe(shiftDay(trays[1]!.sentDay, 1));
    const byDay = days.reduce((all, { stoppedMicros }) => all + stoppedMicros, 0);
    expect(Math.abs(byDay - known.realMicros)).toBeLessThanOrEqual(days.length);
    for (const { entry } of trays)
      expect(await world.db('ledger_entry').where({ ledger_entry_id: entry }).first('about')).toEqual({
        about: 'change',
      });
  });

  test('what ends within two weeks is said before', async () => {
    const [halloween, movie] = await draft(stop('halloween'), stop('movie'));
    const { today: day } = await today();
    await setEndDate(world.deps, world.slug, [halloween!], shiftDay(day, 10));
    await setEndDate(world.deps, world.slug, [movie!], shiftDay(day, 60));
    await sendTray(world.deps, world.slug, world.personId);
    await world.work();
    expect((await viewEnding(world.deps, world.slug)).ending).toMatchObject([
      { changeId: halloween, endsOn: shiftDay(day, 10) },
    ]);
  });
});

describe('what is next', () => {
  test('is sorted by what it is worth, and what has no amount comes after', async () => {
    await draft(stop('movie'));
    await world.bring(report(['2026-01-01,Hives,Kits,bee hive kit,1,1,1.00,0']), 'more.csv');
    const { next } = await viewNext(world.deps, world.slug);
    const worths = next.map(({ worthMicros }) => worthMicros ?? -1);
    expect(worths).toEqual(worths.toSorted((a, b) => b - a));
    expect(next.find(({ kind }) => kind === 'send the tray')).toMatchObject({ count: 1 });
    expect(next.find(({ kind }) => kind === 'load files')).toMatchObject({ count: 1, worthMicros: null });
    expect(next.every(({ count }) => count > 0)).toBe(true);
  });

  test('names what failed apart from what was never sent', async () => {
    await draft(stop('movie'), stop('plans'));
    await world.db('change').where({ change_id: 1 }).update({ failed_before: 'the platform said no' });
    await draft(stop('meme')); // lays the draft anew
    await world.db('account').increment('decision_version', 1).increment('standing_version', 1);
    const { next } = await viewNext(world.deps, world.slug);
    expect(next.find(({ kind }) => kind === 'send again')).toMatchObject({ count: 1 });
    expect(next.find(({ kind }) => kind === 'send the tray')).toMatchObject({ count: 2 });
  });
});

describe('what is new', () => {
  const look = async (person = world.personId) => (await lookAtToday(world.deps, world.slug, person)).since;

  test('the first look tells of a week; looks at the same data stay with that of the report before', async () => {
    const first = await dataTo();
    expect(await look()).toBe(shiftDay(first, -7));
    expect(await look()).toBe(shiftDay(first, -7));
    await weeksPass(1);
    expect(await look()).toBe(first);
    expect(await look()).toBe(first);
    const other = await world.db('person').whereNot({ person_id: world.personId }).first('person_id');
    expect(await look(other.person_id)).toBe(shiftDay(await dataTo(), -7));
  });

  test('names the words and terms that were on no day before, with what they cost', async () => {
    const known = await dataTo();
    const { campaign, adGroup } = await world
      .db('ad_group')
      .join('campaign', 'campaign.campaign_id', 'ad_group.campaign_id')
      .first('campaign.name as campaign', 'ad_group.name as adGroup');
    const row = (days: number, term: string, cost: string) =>
      `${shiftDay(known, days)},${campaign},${adGroup},${term},10,2,${cost},0`;
    await world.load(
      report([
        row(1, 'zeppelin hive', '3.00'),
        row(2, 'zeppelin bee', '1.50'),
        row(2, 'free bee hive plans', '9.00'),
      ]),
    );
    const news = await viewNews(world.deps, world.slug, known);
    expect(news).toMatchObject({ since: known, days: 2, terms: 2, costMicros: 4_500_000 });
    expect(news.words).toEqual([
      { text: 'zeppelin', terms: 2, clicks: 4, costMicros: 4_500_000, conversions: 0 },
    ]);
    expect(news.first.map(({ text }) => text)).toEqual(['zeppelin hive', 'zeppelin bee']);
  });

  test('names the words that were not at fault at the look before', async () => {
    await look();
    const whatIs = async () => (await lookAtToday(world.deps, world.slug, world.personId)).turnedBad;
    const { next } = await viewNext(world.deps, world.slug);
    const bad = next.find(({ kind }) => kind === 'words at fault')!;
    const day = () => world.db.raw('update last_look set data_to = data_to - 1, words = ?::text[]', [[]]);
    await day();
    expect((await whatIs()).map(({ text }) => text).slice(0, 8)).toEqual(bad.first.map(({ text }) => text));
    expect((await whatIs()).length).toBeGreaterThan(0); // the same data again: as at the look before
    await world.db.raw('update last_look set data_to = data_to - 1');
    expect(await whatIs()).toEqual([]); // they are known by now
  });

  test('nothing is new without days after the look', async () => {
    expect(await viewNews(world.deps, world.slug, await dataTo())).toMatchObject({ since: null, words: [] });
    expect(await viewNews(world.deps, world.slug, null)).toMatchObject({ since: null, terms: 0 });
  });
});

describe('stops to look at again', () => {
  test('none while nothing was sent', async () => {
    expect(await viewRegrets(world.deps, world.slug)).toEqual({ regrets: [] });
  });

  test('a term that matches a negative and began to convert elsewhere, and one that is like it', async () => {
    const { rows } = await world.db.raw<{
      rows: { campaign: string; campaign_id: number; adGroup: string }[];
    }>(
      `select c.name as campaign, c.campaign_id, min(g.name) as "adGroup"
         from campaign c join ad_group g using (account_id, campaign_id) group by 1, 2 order by 2 limit 2`,
    );
    const [here, there] = rows;
    await send({
      ...{ kind: 'add negative', text: 'zeppelin', match: 'phrase' },
      place: { kind: 'campaign', id: String(here!.campaign_id) },
    });
    await send({
      ...{ kind: 'add negative', text: 'purple okapi lamp', match: 'exact' },
      place: { kind: 'campaign', id: String(here!.campaign_id) },
    });
    // What acts stopped something before it was sent, as far as the ledger knows.
    await weeksPass(1);
    const day = shiftDay(await dataTo(), 1);
    const row = (term: string, conversions: number) =>
      `${day},${there!.campaign},${there!.adGroup},${term},100,9,3.00,${conversions}`;
    await world.load(report([row('zeppelin hive', 2), row('okapi lamp shop', 3), row('bee hive kit', 4)]));
    const { regrets } = await viewRegrets(world.deps, world.slug);
    expect(regrets).toMatchObject([
      { kind: 'neighbours convert', conversions: 3, terms: ['okapi lamp shop'] },
      { kind: 'stops more', conversions: 2, is: 1 },
    ]);
  });
});
