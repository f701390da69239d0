import { afterAll, beforeAll, expect, test } from 'vitest';
import * as v from 'valibot';
import type { Bounds, Condition, Rule } from '@/core';
import { RuleActsSchema } from '@/contracts/findings';
import { undoSent } from '@/server/use-cases/ledger/undo-sent';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { actByThemselves } from '@/server/use-cases/rules/act-by-itself';
import { viewActs } from '@/server/use-cases/rules/promises';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { rulesOf } from '../support/rules';
import { aQuery, aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

/** Rules that act by themselves on lists, keywords and campaigns. */

let world: World;
beforeAll(async () => {
  const seed = aSeed();
  const { structure } = seed;
  // Its entry shuts out what the keyword “hive stand” says.
  structure.lists.push({ id: 'S3', name: 'Stand', status: 'live', holds: 'words' });
  structure.negatives.push({
    ...structure.negatives[0]!,
    ...{ id: 'E3', text: 'stand', place: { kind: 'list', id: 'S3' } },
  });
  const extra = [
    aQuery('bee hive salary', { daily: 60 }),
    aQuery('hive stand tall', { at: 'G2', daily: 40 }),
  ];
  world = await makeWorld({ ...seed, queries: [...seed.queries, ...extra] });
});
afterAll(() => world.close());

const at = () => [world.deps, world.slug] as const;
const by = () => [world.deps, world.slug, world.personId] as const;
const { findings, whileOn } = rulesOf(() => world);
const clicks = (value: number): Condition => ({ of: 'clicks', is: 'at least', value });
const WIDE: Bounds = { changesADay: 1_000, costADayMicros: 1e12, leastKept: 0 };
const aRule = (
  about: Rule['about'],
  then: Rule['then'],
  { bounds = WIDE, when = [clicks(1)] }: { bounds?: Bounds; when?: Rule['when'] } = {},
): Rule => ({
  ...{ about, when, then, lookBack: { days: 60, lagDays: 0 }, often: 'after each report' },
  ...{ where: { is: 'everywhere', campaigns: [] }, how: { is: 'by itself', bounds } },
});
async function letAct(): Promise<number> {
  const acted = await actByThemselves(world.deps, world.accountId);
  await world.work();
  return acted;
}
async function acts() {
  const view = await viewActs(...at());
  expect(v.parse(RuleActsSchema, view)).toEqual(view);
  return view.acts;
}
const waiting = async () => (await findings()).map(({ term }) => term).sort();

test('lists are hung, each once; one that would shut a live keyword out waits for somebody', async () => {
  await whileOn(aRule('lists', { do: 'hang', list: null }), async () => {
    expect(await waiting()).toEqual(['Old on Courses', 'Stand on Hives', 'Work on Hives']);
    expect(await letAct()).toBe(2);
    expect(await waiting()).toEqual(['Stand on Hives']);
    const told = await acts();
    expect(told.map(({ term, state, isPromising }) => [term, state, isPromising]).sort()).toEqual([
      ['Old on Courses', 'in force', true],
      ['Work on Hives', 'in force', true],
    ]);
    const { lines } = await viewLedger(...at(), { who: 'rules' });
    expect(lines.map(({ what }) => what).join(' ')).toContain('Work');
    const work = told.find(({ term }) => term === 'Work on Hives')!;
    const changeId = lines.find(({ id }) => id === work.entry)!.change!.id;
    await undoSent(...by(), changeId);
    await sendTray(...by());
    await world.work();
    const stateNow = async () => (await acts()).find(({ term }) => term === 'Work on Hives')!.state;
    expect(await stateNow()).toBe('taken back');
    // What was refused beside it is not to be taken back.
    const old = told.find(({ term }) => term === 'Old on Courses')!;
    const refused = lines.find(({ id }) => id === old.entry)!.change!.id;
    await world.db('change').where({ change_id: refused }).update({ state: 'refused' });
    await world
      .db('rule_act')
      .where({ account_id: world.accountId })
      .whereRaw('?? = array[?::integer]', ['change_ids', changeId])
      .update({ change_ids: [changeId, refused] });
    expect(await stateNow()).toBe('taken back');
    expect(await waiting()).toEqual(['Stand on Hives', 'Work on Hives']);
    expect(await letAct()).toBe(0);
  });
});

test('keywords are paused within the bounds of a day, and named in what rules did', async () => {
  const rule = aRule('keywords', { do: 'pause' }, { bounds: { ...WIDE, changesADay: 1 } });
  await whileOn(rule, async () => {
    const [costliest, ...rest] = await findings();
    expect(rest.length).toBeGreaterThan(0);
    expect(await letAct()).toBe(1);
    expect(await letAct()).toBe(0);
    const [act] = await acts();
    expect(act).toMatchObject({ term: costliest!.term, state: 'in force', changes: 1, isPromising: false });
    expect(await waiting()).toEqual(rest.map(({ term }) => term).sort());
  });
});

test('a bid is set once, and what comes up again waits for somebody', async () => {
  const then: Rule['then'] = { do: 'set bid', way: 'raise', leastMicros: 900_000, mostMicros: 900_000 };
  await whileOn(aRule('keywords', then), async () => {
    const before = await findings();
    expect(before.length).toBeGreaterThan(0);
    expect(await letAct()).toBe(before.length);
    const { rows } = await world.db.raw(
      'select distinct bid_micros as bid from keyword where bid_micros > 700000',
    );
    expect(rows).toEqual([{ bid: 900_000 }]);
    expect(await waiting()).toEqual([]);
  });
});

test('a budget is raised once', async () => {
  const then: Rule['then'] = { do: 'raise budget', byShare: 0.2, mostMicros: 100_000_000 };
  const when: Rule['when'] = [{ of: 'budget', is: 'at least', share: 0 }];
  await whileOn(aRule('campaigns', then, { when }), async () => {
    const before = await waiting();
    expect(await letAct()).toBe(before.length);
    // What it would raise again from here waits for somebody.
    expect(await waiting()).toEqual(before);
    expect(await letAct()).toBe(0);
    const budgets = await world.db('campaign').where({ account_id: world.accountId, status: 'live' });
    expect(budgets.map((row) => row.budget_micros)).toEqual(before.map(() => 60_000_000));
  });
});
