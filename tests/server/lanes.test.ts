import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import type { Change } from '@/core';
import { LanesViewSchema, WhereSchema, type LanePlan, type Leak, type LanesQuery } from '@/contracts/lanes';
import type { SeedRequest } from '@/contracts/platform';
import { raiseDataVersion } from '@/server/repositories/account/accounts';
import { fetchReport } from '@/server/use-cases/intake/fetch-report';
import { setLanePlan } from '@/server/use-cases/lanes/set-lane-plan';
import { viewLanes } from '@/server/use-cases/lanes/view-lanes';
import { whereWouldItGo } from '@/server/use-cases/lanes/where-would-it-go';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { aQuery, aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

/** Three campaigns that are asked one after another, with a leak of each kind, and days that pass until each is closed. */

const TIERS = [
  { name: 'All queries', priority: 'high' },
  { name: 'Maker names', priority: 'medium' },
  { name: 'Product numbers', priority: 'low' },
] as const;
const AD_GROUPS = TIERS.map((_, i) => `LG${i + 1}`);

function aSeedInLanes(): SeedRequest {
  const seed = aSeed();
  const { structure } = seed;
  const negative = (id: string, text: string, match: 'phrase' | 'broad', campaign: number) => ({
    ...{ id, text, match, place: { kind: 'campaign' as const, id: `L${campaign}` } },
    ...{ createdAt: '2026-01-01T00:00:00Z', status: 'live' as const },
  });
  const asked = (text: string, daily = 40) =>
    aQuery(text, { daily, cvr: 0.1, means: [], automaticIn: AD_GROUPS });
  return {
    ...seed,
    structure: {
      ...structure,
      campaigns: [
        ...structure.campaigns,
        ...TIERS.map(({ name, priority }, i) => ({
          ...{ ...structure.campaigns[0]!, id: `L${i + 1}`, name, priority, channel: 'shopping' },
          budgetMicros: i === 1 ? 12_000_000 : 90_000_000,
        })),
      ],
      adGroups: [
        ...structure.adGroups,
        ...TIERS.map((_, i) => ({
          id: AD_GROUPS[i]!,
          campaignId: `L${i + 1}`,
          name: 'All',
          status: 'live' as const,
        })),
      ],
      negatives: [
        ...structure.negatives,
        ...[negative('LN1', 'model nine', 'phrase', 1), negative('LN2', 'model nine', 'phrase', 2)],
        negative('LN3', 'cheap', 'broad', 1),
        ...[negative('LN4', 'oast', 'phrase', 1), negative('LN5', 'oast', 'phrase', 2)],
      ],
    },
    queries: [
      ...seed.queries,
      ...[asked('hive stand oak', 80), asked('pellwright smoker', 80), asked('pellwright veil')],
      ...[asked('smoker model nine'), asked('cheap hive'), asked('oast veil')],
    ],
  };
}

let world: World;
let plan: LanePlan;
let key: string;
beforeAll(async () => {
  world = await makeWorld(aSeedInLanes());
  await fetchReport(world.deps, world.slug, world.personId);
  await world.work();
  const rows: { campaign_id: number; name: string }[] = await world
    .db('campaign')
    .select('campaign_id', 'name');
  const idOf = new Map(rows.map((row) => [row.name, String(row.campaign_id)]));
  plan = {
    name: 'Shopping',
    tiers: [
      { name: 'All queries', campaigns: [idOf.get('All queries')!], entryTerms: [] },
      { name: 'Maker names', campaigns: [idOf.get('Maker names')!], entryTerms: ['Pellwright'] },
      { name: 'Product numbers', campaigns: [idOf.get('Product numbers')!], entryTerms: ['model nine'] },
    ],
  };
  key = (await setLanePlan(...by(), { was: null, plan })).key!;
});
afterAll(() => world.close());

const at = () => [world.deps, world.slug] as const;
const by = () => [world.deps, world.slug, world.personId] as const;
async function shown(query: LanesQuery = {}) {
  const view = await viewLanes(...at(), { plan: key, ...query });
  expect(v.parse(LanesViewSchema, view)).toEqual(view);
  return view.shown!;
}
const leakOf = (leaks: readonly Leak[], query: string) => leaks.find((one) => one.query === query)!;
async function put(changes: readonly Change[]) {
  const outcomes = await draftChanges(
    ...by(),
    changes.map((change) => ({ change, forcedBecause: 'a lane plan' })),
  );
  expect(outcomes.map(({ outcome }) => outcome)).toEqual(changes.map(() => 'drafted'));
}
async function send() {
  await sendTray(...by());
  await world.work();
}
/** Lets days pass in the stand-in, and looks at those alone. */
async function days(count: number) {
  const response = await fetch(`${world.platformUrl}/accounts/${world.slug}/clock`, {
    method: 'POST',
    body: JSON.stringify({ days: count }),
  });
  const { today } = (await response.json()) as { today: string };
  await fetchReport(world.deps, world.slug, world.personId);
  await world.work();
  const first = new Date(Date.parse(today) - (count - 1) * 86_400_000).toISOString().slice(0, 10);
  const last = new Date(Date.parse(today) - 86_400_000).toISOString().slice(0, 10);
  return shown({ days: { from: first, to: last } });
}

describe('a lane plan', () => {
  test('shows what each tier served and would serve by the plan, and its negatives', async () => {
    const { tiers, by: how, faults, budget } = await shown();
    expect(how).toBe('entry terms');
    expect(tiers).toMatchObject([
      {
        name: 'All queries',
        places: ['All queries'],
        priorities: ['high'],
        entryTerms: 0,
        needs: 2,
        missing: 1,
      },
      { name: 'Maker names', priorities: ['medium'], entryTerms: 1, needs: 1, missing: 0 },
      { name: 'Product numbers', priorities: ['low'], needs: 0, missing: 0, isPaused: false },
    ]);
    const clicks = (of: 'really' | 'byPlan') => tiers.map((tier) => tier[of].clicks);
    expect(clicks('byPlan').reduce((a, b) => a + b)).toBe(clicks('really').reduce((a, b) => a + b));
    expect(tiers[1]!.byPlan.clicks).toBeGreaterThan(tiers[1]!.really.clicks);
    expect(budget).toBeNull();
    expect(faults[0]).toContain('do not pay out of one budget');
    expect(faults[0]).toContain('192.00 a day');
  });

  test('names its leaks, dearest first, each with its cause and what mends it', async () => {
    const { leaks } = await shown();
    const costs = leaks.first.map(({ costMicros }) => costMicros);
    expect(costs).toEqual(costs.toSorted((a, b) => b - a));
    expect(leakOf(leaks.first, 'pellwright smoker')).toMatchObject({
      ...{ own: 1, served: 0, cause: 'negative missing' },
      because: '“pellwright” is no negative in All queries',
      mends: [{ kind: 'add negative', text: 'pellwright', match: 'phrase', place: { kind: 'campaign' } }],
    });
    expect(leakOf(leaks.first, 'cheap hive')).toMatchObject({
      ...{ own: 0, served: 1, cause: 'negative in the way' },
      because: '“cheap” (broad) in All queries stops it in All queries',
      mends: [{ kind: 'remove negative', text: 'cheap' }],
    });
    expect(leakOf(leaks.first, 'oast veil')).toMatchObject({
      ...{ own: 0, served: 2, cause: 'entry term missing', mends: [] },
      entryTerm: { text: 'oast', tier: 2 },
    });
    expect(leaks.first.map(({ query }) => query)).not.toContain('smoker model nine');
    expect(leaks.count).toBe(leaks.first.length);
    const { tiers } = await shown();
    const ofTier = (number: number) => leaks.first.filter(({ served }) => served === number);
    expect(tiers.map(({ leaksMicros }) => leaksMicros)).toEqual(
      tiers.map((_, number) => ofTier(number).reduce((sum, { costMicros }) => sum + costMicros, 0)),
    );
  });

  test('tells of each entry term what it lets in, and where it is missing', async () => {
    const { entryTerms, missing } = await shown();
    expect(entryTerms).toMatchObject([
      { text: 'pellwright', tier: 1, missingIn: ['All queries'], fault: null },
      { text: 'model nine', tier: 2, missingIn: [], fault: null },
    ]);
    expect(entryTerms[0]!.clicks).toBeGreaterThan(0);
    expect(missing).toMatchObject([{ kind: 'add negative', text: 'pellwright' }]);
  });

  test('tells where a query would go: by the plan, and as things are', async () => {
    const where = async (query: string) =>
      v.parse(WhereSchema, await whereWouldItGo(...at(), { plan: key, query }));
    expect(await where('pellwright 40')).toEqual({ byPlan: 1, entryTerm: 'pellwright', asItIs: 0 });
    expect(await where('a model nine')).toEqual({ byPlan: 2, entryTerm: 'model nine', asItIs: 2 });
    expect(await where('cheap thing')).toEqual({ byPlan: 0, entryTerm: null, asItIs: 1 });
    await expect(whereWouldItGo(...at(), { plan: 'plan 999', query: 'x' })).rejects.toThrow(
      'not there any more',
    );
  });
});

test('days pass: what the tray mends closes, a budget that runs dry shows, and shared it closes, too', async () => {
  const { leaks, missing } = await shown();
  await put([...missing, ...leakOf(leaks.first, 'cheap hive').mends]);
  // In the tray a leak is as good as mended.
  expect(leakOf((await shown()).leaks.first, 'pellwright smoker').cause).toBe('mended');
  await send();
  const withOast = {
    ...plan,
    tiers: plan.tiers.with(2, { ...plan.tiers[2]!, entryTerms: ['model nine', 'oast'] }),
  };
  await setLanePlan(...by(), { was: plan, plan: withOast });
  plan = withOast;

  const after = await days(10);
  expect([...new Set(after.leaks.first.map(({ cause }) => cause))]).toEqual(['ran dry']);
  expect(new Set(after.leaks.first.map(({ own }) => own))).toEqual(new Set([1]));
  expect(after.tiers[1]!.dryDays.length).toBeGreaterThan(0);
  expect(after.leaks.first[0]!.because).toMatch(/^Maker names spent its budget on \d+ days?$/);

  expect(after.sharing).toMatchObject(
    [90, 12, 90].map((own) => ({
      kind: 'share budget',
      budget: 'Shopping',
      budgetMicros: 192_000_000,
      ownMicros: own * 1e6,
    })),
  );
  await put(after.sharing);
  expect((await shown()).sharing).toEqual([]);
  await send();
  const last = await days(10);
  expect(last.leaks).toEqual({ count: 0, costMicros: 0, first: [] });
  expect(last.budget).toEqual({ name: 'Shopping', micros: 192_000_000 });
  for (const { really, byPlan } of last.tiers) expect(byPlan.clicks).toBe(really.clicks);
}, 60_000);

describe('what a plan says of the platform', () => {
  test('campaigns that are asked in another order are named, with what mends it', async () => {
    const turned = { ...plan, tiers: [plan.tiers[1]!, plan.tiers[0]!, plan.tiers[2]!] };
    await setLanePlan(...by(), { was: plan, plan: turned });
    const { ordering, faults } = await shown();
    expect(ordering).toMatchObject([
      { kind: 'set priority', priority: 'high', was: 'medium' },
      { kind: 'set priority', priority: 'medium', was: 'high' },
    ]);
    expect(faults).toContain('Its campaigns are not asked in the order of the tiers.');
    await setLanePlan(...by(), { was: turned, plan });
  });

  test('an entry term that a later tier takes, and a tier in which no query lands', async () => {
    const faulty = {
      ...plan,
      tiers: plan.tiers.with(1, { ...plan.tiers[1]!, entryTerms: ['an oast', 'Model nine', 'LK-2041'] }),
    };
    await setLanePlan(...by(), { was: plan, plan: faulty });
    const { entryTerms, faults, missing } = await shown();
    expect(missing.map((change) => 'text' in change && change.text)).not.toContain('lk 2041');
    expect(entryTerms.map(({ fault }) => fault)).toEqual([
      '“oast” of Product numbers lies inside it and gets its queries.',
      'It stands in Product numbers, too, which gets its queries.',
      'It is a product code, which no negative stops.',
      ...[null, null],
    ]);
    expect(faults.at(-1)).toContain('No query can land in Maker names');
    await setLanePlan(...by(), { was: faulty, plan });
  });
});

test('budgets that nobody tells of are said to be unknown', async () => {
  const { accountId } = world;
  const told = await world
    .db('campaign')
    .where({ account_id: accountId, channel: 'shopping' })
    .select('campaign_id', 'budget_micros', 'shared_budget');
  await world
    .db('campaign')
    .where({ account_id: accountId, channel: 'shopping' })
    .update({ budget_micros: null, shared_budget: null });
  await raiseDataVersion(world.db, accountId);
  const { budget, sharing, faults } = await shown();
  expect([budget, sharing]).toEqual([null, []]);
  expect(faults[0]).toContain('Nothing says what its campaigns may cost a day');
  for (const { campaign_id, ...was } of told)
    await world.db('campaign').where({ account_id: accountId, campaign_id }).update(was);
  await raiseDataVersion(world.db, accountId);
});

test('nothing is left to a tier that does not run: its negatives are named, and not offered', async () => {
  const more = {
    ...plan,
    tiers: plan.tiers.with(2, { ...plan.tiers[2]!, entryTerms: ['model nine', 'oast', 'hive stand'] }),
  };
  await setLanePlan(...by(), { was: plan, plan: more });
  expect((await shown()).missing).toHaveLength(2);
  const pause = async (status: 'paused' | 'live') => {
    await world.db('campaign').where({ name: 'Product numbers' }).update({ status });
    await raiseDataVersion(world.db, world.accountId);
  };
  await pause('paused');
  const { missing, entryTerms, tiers, leaks } = await shown();
  expect(missing).toEqual([]);
  expect(tiers[2]).toMatchObject({ isPaused: true });
  expect(tiers[0]!.missing).toBe(1);
  expect(entryTerms.find(({ text }) => text === 'hive stand')).toMatchObject({
    ...{ missingIn: ['All queries', 'Maker names'] },
    fault: 'Product numbers stops it, or does not run: nothing is left to it.',
  });
  expect(leakOf(leaks.first, 'hive stand oak')).toMatchObject({
    ...{ own: 2, served: 0, mends: [], noMend: expect.stringContaining('nothing would serve it') },
  });
  await pause('live');
  await setLanePlan(...by(), { was: more, plan });
});

describe('plans are kept', () => {
  test.each<[string, (one: LanePlan) => LanePlan, string]>([
    [
      'two tiers of one name',
      (one) => ({ ...one, tiers: one.tiers.with(1, { ...one.tiers[1]!, name: 'All queries' }) }),
      'Two tiers are called All queries',
    ],
    [
      'a campaign in two tiers',
      (one) => ({
        ...one,
        tiers: one.tiers.with(1, { ...one.tiers[1]!, campaigns: one.tiers[0]!.campaigns }),
      }),
      'All queries would be in two tiers',
    ],
    [
      'a campaign that is gone',
      (one) => ({ ...one, tiers: one.tiers.with(1, { ...one.tiers[1]!, campaigns: ['99999'] }) }),
      'not there any more',
    ],
  ])('not with %s', async (_, change, says) => {
    await expect(setLanePlan(...by(), { was: plan, plan: change(plan) })).rejects.toThrow(says);
    expect((await shown()).plan).toEqual(plan);
  });

  test('not twice under one name, nor over what another person made of one', async () => {
    await expect(setLanePlan(...by(), { was: null, plan })).rejects.toThrow(
      'There is a lane plan Shopping already',
    );
    const old = { ...plan, name: 'Old' };
    await expect(setLanePlan(...by(), { was: old, plan })).rejects.toThrow('changed meanwhile');
  });

  test('and a removal is undone from the Ledger', async () => {
    await setLanePlan(...by(), { was: plan, plan: null });
    expect((await viewLanes(...at(), {})).plans.map(({ by: how }) => how)).not.toContain('entry terms');
    const [entry] = (await viewLedger(...at())).lines;
    expect(entry).toMatchObject({ about: 'lanes', what: 'Removed the lane plan Shopping', canUndo: true });
    await undoEntry(...by(), entry!.id);
    const { plans } = await viewLanes(...at(), {});
    expect(plans[0]).toMatchObject({ name: 'Shopping', by: 'entry terms' });
    key = plans[0]!.key;
    expect((await shown()).plan).toEqual(plan);
  });
});

describe('the seats of a group', () => {
  let other: World;
  beforeAll(async () => {
    const seed = aSeed();
    const seats = ['broad', 'phrase', 'exact'] as const;
    const keyword = (i: number, text: string) => ({
      ...{ id: `SK${i}-${text}`, adGroupId: `SG${i}`, text, match: seats[i]!, status: 'live' as const },
      ...{ bidMicros: 600_000, changedOn: null },
    });
    other = await makeWorld({
      ...seed,
      structure: {
        ...seed.structure,
        campaigns: [{ ...seed.structure.campaigns[0]!, id: 'C9', name: 'Feeders' }],
        adGroups: seats.map((match, i) => ({
          ...{ id: `SG${i}`, campaignId: 'C9', name: `Feeders ${match}`, status: 'live' as const },
        })),
        keywords: [keyword(0, 'top feeder'), keyword(1, 'top feeder'), keyword(2, 'cedar top feeder')],
        ...{ lists: [], hangings: [], negatives: [] },
      },
      queries: ['cedar top feeder', 'top feeder for hive', 'feeder top'].map((text) =>
        aQuery(text, { means: [] }),
      ),
    });
    await fetchReport(other.deps, other.slug, other.personId);
    await other.work();
  });
  afterAll(() => other.close());

  test('are lanes by match type, whose entry terms are their keywords', async () => {
    const { plans, shown: seats } = await viewLanes(other.deps, other.slug, {});
    expect(plans).toMatchObject([{ name: 'Feeders', by: 'match type' }]);
    expect(seats).toMatchObject({ plan: null, budget: null, sharing: [], ordering: [], faults: [] });
    expect(
      seats!.tiers.map(({ name, entryTerms, needs, missing }) => [name, entryTerms, needs, missing]),
    ).toEqual([
      ['Feeders broad', 0, 2, 2],
      ['Feeders phrase', 1, 1, 1],
      ['Feeders exact', 1, 0, 0],
    ]);
    const text = (change: Change) =>
      'match' in change ? `${change.text} (${change.match}) ${change.kind}` : '';
    expect(seats!.missing.map(text).toSorted()).toEqual([
      'cedar top feeder (exact) add negative',
      'cedar top feeder (exact) add negative',
      'top feeder (phrase) add negative',
    ]);
    for (const leak of seats!.leaks.first) expect(leak).toMatchObject({ cause: 'negative missing' });
  });

  test('take what the plan says once their negatives stand', async () => {
    const { shown: seats } = await viewLanes(other.deps, other.slug, {});
    await draftChanges(
      ...([other.deps, other.slug, other.personId] as const),
      seats!.missing.map((change) => ({ change, forcedBecause: 'a lane plan' })),
    );
    const where = (query: string) => whereWouldItGo(other.deps, other.slug, { plan: seats!.key, query });
    expect(await where('cedar top feeder')).toEqual({ byPlan: 2, entryTerm: 'cedar top feeder', asItIs: 2 });
    expect(await where('top feeder large')).toEqual({ byPlan: 1, entryTerm: 'top feeder', asItIs: 1 });
    expect(await where('feeder top')).toEqual({ byPlan: 0, entryTerm: null, asItIs: 0 });
  });
});
