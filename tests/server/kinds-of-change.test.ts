import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { CHANGE_KINDS, newListId, type Change, type ChangeKind } from '@/core';
import type { PlatformChange, Structure } from '@/contracts/platform';
import { loadMirror } from '@/server/repositories/structure/structure';
import { fetchReport } from '@/server/use-cases/intake/fetch-report';
import { undoSent, undoTogether } from '@/server/use-cases/ledger/undo-sent';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { undoOutside } from '@/server/use-cases/tray/elsewhere/settle-outside';
import { viewLists } from '@/server/use-cases/lists/view-lists';
import { sheetOfSet } from '@/server/use-cases/tray/hand-over/sheet-of-set';
import { workOf } from '@/server/use-cases/tray/kinds';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

/** Every kind of change goes the whole way: draft, sheet, send, read-back, undo. A new kind needs a case here. */
type Case = {
  /** in our ids, of which the test knows only names */
  change(id: (table: 'campaign' | 'shared_list' | 'keyword', name: string) => string): Change;
  /** what somebody else does on the platform, in its ids, after it was sent */
  meddling: PlatformChange;
  /** what the read-back finds then */
  finds: 'there' | 'missing' | 'different';
  /** cells of the sheet that tell what is to be done */
  cells: string[];
};

const HIVES = { kind: 'campaign', id: 'C1' } as const;
const OLD = { kind: 'list', id: 'S2' } as const;
const aKeyword = (text: string, adGroup = 'Starter') => ({
  ...{ campaign: 'Hives', adGroup, text, match: 'phrase' as const, bidMicros: 600_000 },
});
const COMMON = { budget: 'Common', budgetMicros: 90_000_000 };
const fresh = newListId(randomUUID());

const CASES: Record<ChangeKind, Case> = {
  'add negative': {
    change: (id) => ({
      ...{ kind: 'add negative', text: 'movie', match: 'phrase' },
      place: { kind: 'campaign', id: id('campaign', 'Hives') },
    }),
    meddling: { kind: 'remove negative', text: 'movie', match: 'phrase', place: HIVES },
    finds: 'missing',
    cells: ['Add the negative', 'Hives', 'movie', 'phrase'],
  },
  'remove negative': {
    change: (id) => ({
      ...{ kind: 'remove negative', text: 'tattoo', match: 'phrase' },
      place: { kind: 'list', id: id('shared_list', 'Old') },
    }),
    meddling: { kind: 'add negative', text: 'tattoo', match: 'phrase', place: OLD },
    finds: 'missing',
    cells: ['Remove the negative', 'Old', 'tattoo'],
  },
  'make list': {
    change: () => ({ kind: 'make list', listId: fresh, name: 'Films' }),
    meddling: { kind: 'remove list', listId: 'L' },
    finds: 'missing',
    cells: ['Make the shared list', 'Films'],
  },
  'remove list': {
    change: (id) => ({ kind: 'remove list', listId: id('shared_list', 'Empty'), name: 'Empty' }),
    meddling: { kind: 'make list', name: 'Empty', holds: 'words' },
    finds: 'there', // nobody brings a removed list back; this is another of its name
    cells: ['Remove the shared list', 'Empty'],
  },
  'rename list': {
    change: (id) => ({
      ...{ kind: 'rename list', listId: id('shared_list', 'Old'), name: 'Ink', was: 'Old' },
    }),
    meddling: { kind: 'rename list', listId: 'S2', name: 'Body art' },
    finds: 'different',
    cells: ['Rename the shared list', 'Old', 'Ink'],
  },
  'hang list': {
    change: (id) => ({
      ...{ kind: 'hang list', listId: id('shared_list', 'Old'), campaignId: id('campaign', 'Hives') },
    }),
    meddling: { kind: 'take down list', listId: 'S2', campaignId: 'C1' },
    finds: 'missing',
    cells: ['Apply the shared list', 'Old', 'Hives'],
  },
  'take down list': {
    change: (id) => ({
      ...{ kind: 'take down list', listId: id('shared_list', 'Work'), campaignId: id('campaign', 'Courses') },
    }),
    meddling: { kind: 'hang list', listId: 'S1', campaignId: 'C2' },
    finds: 'missing',
    cells: ['Take the shared list off', 'Work', 'Courses'],
  },
  'add placement': {
    change: (id) => ({
      ...{ kind: 'add placement', address: 'films.example', listId: id('shared_list', 'Sites') },
    }),
    meddling: { kind: 'remove placement', address: 'films.example', listId: 'S4' },
    finds: 'missing',
    cells: ['Add the placement', 'Sites', 'films.example'],
  },
  'remove placement': {
    change: (id) => ({
      ...{ kind: 'remove placement', address: 'games.example', listId: id('shared_list', 'Sites') },
    }),
    meddling: { kind: 'add placement', address: 'games.example', listId: 'S4' },
    finds: 'missing',
    cells: ['Remove the placement', 'Sites', 'games.example'],
  },
  'exclude product': {
    change: (id) => ({
      ...{
        kind: 'exclude product',
        code: 'LK-2041',
        place: { kind: 'campaign', id: id('campaign', 'Hives') },
      },
    }),
    meddling: { kind: 'readmit product', code: 'LK-2041', place: HIVES },
    finds: 'missing',
    cells: ['Exclude the product', 'Hives', 'LK-2041'],
  },
  'readmit product': {
    change: (id) => ({
      ...{
        kind: 'readmit product',
        code: 'LK-7000',
        place: { kind: 'campaign', id: id('campaign', 'Hives') },
      },
    }),
    meddling: { kind: 'exclude product', code: 'LK-7000', place: HIVES },
    finds: 'missing',
    cells: ['Take back the exclusion of the product', 'Hives', 'LK-7000'],
  },
  'set bid': {
    change: (id) => ({
      ...{ kind: 'set bid', keywordId: id('keyword', 'bee hive'), bidMicros: 400_000, wasMicros: 700_000 },
    }),
    meddling: { kind: 'set bid', keywordId: 'K1', bidMicros: 900_000 },
    finds: 'different',
    cells: ['Set the bid', 'Starter', 'bee hive', '0.40'],
  },
  'set budget': {
    change: (id) => ({
      ...{ kind: 'set budget', campaignId: id('campaign', 'Hives') },
      ...{ budgetMicros: 44_000_000, wasMicros: 50_000_000 },
    }),
    meddling: { kind: 'set budget', campaignId: 'C1', budgetMicros: 60_000_000 },
    finds: 'different',
    cells: ['Set the budget of a day', 'Hives', '44.00'],
  },
  'share budget': {
    change: (id) => ({
      kind: 'share budget',
      campaignId: id('campaign', 'Shop'),
      ...COMMON,
      ownMicros: 30_000_000,
    }),
    meddling: { kind: 'leave budget', campaignId: 'C8', ...COMMON, ownMicros: 30_000_000 },
    finds: 'missing',
    cells: ['Pay out of the shared budget', 'Shop', 'Common', '90.00'],
  },
  'leave budget': {
    change: (id) => ({
      kind: 'leave budget',
      campaignId: id('campaign', 'Tools'),
      ...COMMON,
      ownMicros: 20_000_000,
    }),
    meddling: { kind: 'share budget', campaignId: 'C7', ...COMMON, ownMicros: 20_000_000 },
    finds: 'missing',
    cells: ['Pay out of a budget of its own', 'Tools', 'Common', '20.00'],
  },
  'set priority': {
    change: (id) => ({
      kind: 'set priority',
      campaignId: id('campaign', 'Shop'),
      priority: 'high',
      was: 'low',
    }),
    meddling: { kind: 'set priority', campaignId: 'C8', priority: 'medium' },
    finds: 'different',
    cells: ['Set the priority', 'Shop', 'high'],
  },
  'pause keyword': {
    change: (id) => ({ kind: 'pause keyword', keywordId: id('keyword', 'hive stand') }),
    meddling: { kind: 'run keyword', keywordId: 'K2' },
    finds: 'missing',
    cells: ['Pause the keyword', 'Stands', 'hive stand'],
  },
  'run keyword': {
    change: (id) => ({ kind: 'run keyword', keywordId: id('keyword', 'bee course') }),
    meddling: { kind: 'pause keyword', keywordId: 'K3' },
    finds: 'missing',
    cells: ['Run the keyword again', 'Weekend', 'bee course'],
  },
  'add campaign': {
    change: () => ({ kind: 'add campaign', name: 'Spring', budgetMicros: 12_500_000 }),
    meddling: { kind: 'remove campaign', name: 'Spring', budgetMicros: 12_500_000 },
    finds: 'missing',
    cells: ['Add the campaign, paused', 'Spring', '12.50'],
  },
  'remove campaign': {
    change: () => ({ kind: 'remove campaign', name: 'Bare', budgetMicros: 1_000_000 }),
    meddling: { kind: 'add campaign', name: 'Bare', budgetMicros: 1_000_000 },
    finds: 'missing',
    cells: ['Remove the campaign', 'Bare'],
  },
  'add ad group': {
    change: () => ({ kind: 'add ad group', campaign: 'Hives', name: 'Kits' }),
    meddling: { kind: 'remove ad group', campaign: 'Hives', name: 'Kits' },
    finds: 'missing',
    cells: ['Add the ad group', 'Hives', 'Kits'],
  },
  'remove ad group': {
    change: () => ({ kind: 'remove ad group', campaign: 'Hives', name: 'Hollow' }),
    meddling: { kind: 'add ad group', campaign: 'Hives', name: 'Hollow' },
    finds: 'missing',
    cells: ['Remove the ad group', 'Hives', 'Hollow'],
  },
  'add keyword': {
    change: () => ({ ...aKeyword('hive kit'), kind: 'add keyword' }),
    meddling: { ...aKeyword('hive kit'), kind: 'remove keyword' },
    finds: 'missing',
    cells: ['Add the keyword', 'Hives', 'Starter', 'hive kit', 'phrase', '0.60'],
  },
  'remove keyword': {
    change: () => ({ ...aKeyword('hive stand', 'Stands'), kind: 'remove keyword' }),
    meddling: { ...aKeyword('hive stand', 'Stands'), kind: 'add keyword' },
    finds: 'missing',
    cells: ['Remove the keyword', 'Hives', 'Stands', 'hive stand'],
  },
};

/** A small account in which every kind of change is possible. */
function aSeedForAll() {
  const { structure } = aSeed();
  const seed: Structure = {
    ...structure,
    campaigns: [
      ...structure.campaigns,
      { ...structure.campaigns[0]!, id: 'C9', name: 'Bare', status: 'paused', budgetMicros: 1_000_000 },
      { ...structure.campaigns[0]!, id: 'C8', name: 'Shop', priority: 'low', budgetMicros: 30_000_000 },
      {
        ...{ ...structure.campaigns[0]!, id: 'C7', name: 'Tools', priority: 'high' },
        ...{ sharedBudget: COMMON.budget, budgetMicros: COMMON.budgetMicros },
      },
    ],
    adGroups: [...structure.adGroups, { id: 'G9', campaignId: 'C1', name: 'Hollow', status: 'live' }],
    keywords: [
      ...structure.keywords.map((k) => (k.id === 'K3' ? { ...k, status: 'paused' as const } : k)),
      {
        ...structure.keywords[0]!,
        ...{ id: 'K9', adGroupId: 'G2', text: 'hive stand', match: 'phrase', bidMicros: 600_000 },
      },
    ],
    lists: [
      ...structure.lists,
      { id: 'S3', name: 'Empty', status: 'live', holds: 'words' },
      { id: 'S4', name: 'Sites', status: 'live', holds: 'placements' },
    ],
    placements: [
      { id: 'A1', address: 'games.example', listId: 'S4', createdAt: '2026-01-01T00:00:00Z', status: 'live' },
    ],
    exclusions: [
      { id: 'Q1', code: 'LK-7000', place: HIVES, createdAt: '2026-01-01T00:00:00Z', status: 'live' },
    ],
  };
  return aSeed({ structure: seed });
}

let world: World;
beforeEach(async () => {
  world = await makeWorld(aSeedForAll());
});
afterEach(() => world.close());

async function changeFor(kind: ChangeKind): Promise<Change> {
  const mirror = await loadMirror(world.db, world.accountId);
  const all = { campaign: mirror.campaigns, shared_list: mirror.lists, keyword: mirror.keywords };
  return CASES[kind].change((table, name) => {
    const isNamed = (e: object, text: string) => ('text' in e ? e.text : 'name' in e && e.name) === text;
    // A tray that was sent before may have given the list its other name.
    const names = name === 'Old' ? [name, 'Ink'] : [name];
    const found = all[table].find((e) => names.some((one) => isNamed(e, one)) && !isExact(e));
    if (!found) throw new Error(`no ${table} ${name}`);
    return found.id;
  });
}
/** A name that is taken is refused; the others are there already. */
const NOT_TWICE = /already there|refused/;
const isExact = (element: object) => 'match' in element && element.match === 'exact';

const draft = (change: Change) => draftChanges(world.deps, world.slug, world.personId, [{ change }]);
const find = async (change: Change) =>
  workOf(change).find(change, await loadMirror(world.db, world.accountId));

/** What stands on the platform, without what tells one time from another. */
async function standing() {
  const { campaigns, adGroups, keywords, lists, hangings, negatives, placements, exclusions } =
    await world.deps.platform.structure(world.slug, 0);
  const isThere = ({ status }: { status: string }) => status !== 'removed';
  const names = new Map([...campaigns, ...lists].map(({ id, name }) => [id, name]));
  const name = (id: string | null) => names.get(id ?? '') ?? id;
  return {
    campaigns: campaigns
      .filter(isThere)
      .map((c) => [c.name, c.status, c.budgetMicros, c.sharedBudget, c.priority].join()),
    adGroups: adGroups
      .filter(isThere)
      .map((g) => `${g.name} in ${name(g.campaignId)}`)
      .sort(),
    keywords: keywords
      .filter(isThere)
      .map(({ text, match, status, bidMicros }) => [text, match, status, bidMicros].join())
      .sort(),
    lists: lists
      .filter(isThere)
      .map((l) => l.name)
      .sort(),
    hangings: hangings
      .filter(isThere)
      .map((h) => `${name(h.listId)} on ${name(h.campaignId)}`)
      .sort(),
    negatives: negatives
      .filter(isThere)
      .map((n) => `${n.text} ${n.match} ${name(n.place.id)}`)
      .sort(),
    placements: placements
      .filter(isThere)
      .map((p) => `${p.address} ${name(p.listId)}`)
      .sort(),
    exclusions: exclusions
      .filter(isThere)
      .map((e) => `${e.code} ${name(e.place.id)}`)
      .sort(),
  };
}

describe.each(CHANGE_KINDS)('%s', (kind) => {
  test('is drafted, handed over as a sheet, sent, found there, undone, and all is as before', async () => {
    const before = await standing();
    const change = await changeFor(kind);
    expect(await find(change)).toBe('missing');
    const [drafted] = await draft(change);
    expect(drafted).toMatchObject({ outcome: 'drafted' });
    expect((await draft(change))[0]!.outcome).toMatch(NOT_TWICE);
    const setId = await sendTray(world.deps, world.slug, world.personId);
    const { content } = await sheetOfSet(world.deps, world.slug, setId, 'csv');
    const row = String(content).trim().split(/\r?\n/)[1]!;
    for (const cell of CASES[kind].cells) expect(row).toContain(cell);
    await world.work();
    const [line] = (await viewLedger(world.deps, world.slug)).lines;
    expect(line).toMatchObject({ what: expect.any(String), change: { state: 'there' } });
    expect(await standing()).not.toEqual(before);
    // What is so already is not drafted again.
    expect((await draft(sameAgain(change)))[0]!.outcome).toMatch(NOT_TWICE);

    const undo = await undoSent(world.deps, world.slug, world.personId, line!.change!.id);
    expect(undo).toMatchObject({ outcome: 'drafted' });
    await sendTray(world.deps, world.slug, world.personId);
    await world.work();
    expect(await standing()).toEqual(before);
  });

  test(`is found ${CASES[kind].finds} when somebody else did otherwise`, async () => {
    const change = await changeFor(kind);
    await draft(change);
    await sendTray(world.deps, world.slug, world.personId);
    const { platform } = world.deps;
    const untouched = { ...platform };
    // Between our sending and our reading back.
    platform.change = async (account, batch) => {
      const answer = await untouched.change(account, batch);
      const made = answer.answers.flatMap((a) => (a.outcome === 'applied' && a.id !== null ? [a.id] : []))[0];
      const { meddling } = CASES[kind];
      const isOfMade = 'listId' in meddling && meddling.listId === 'L';
      const other = isOfMade ? { ...meddling, listId: made! } : meddling;
      expect(await untouched.change(account, [{ key: randomUUID(), change: other }])).toMatchObject({
        answers: [{ outcome: 'applied' }],
      });
      return answer;
    };
    await world.work();
    platform.change = untouched.change;
    const [line] = (await viewLedger(world.deps, world.slug)).lines.filter((l) => l.change !== null);
    expect(line!.change!.state).toBe(CASES[kind].finds);
  });
});

/** A renaming or a bid says what it starts from, which is another by now. */
function sameAgain(change: Change): Change {
  if (change.kind === 'set bid') return { ...change, wasMicros: change.bidMicros };
  if (change.kind === 'set budget') return { ...change, wasMicros: change.budgetMicros };
  if (change.kind === 'set priority') return { ...change, was: change.priority };
  if (change.kind === 'rename list') return { ...change, was: change.name };
  return change;
}

describe('several kinds together', () => {
  const send = async (kinds: readonly ChangeKind[]) => {
    const changes: Change[] = [];
    for (const kind of kinds) {
      const change = await changeFor(kind);
      changes.push(change.kind === 'make list' ? { ...change, listId: newListId(randomUUID()) } : change);
    }
    const wanted = changes.map((change) => ({ change }));
    const outcomes = await draftChanges(world.deps, world.slug, world.personId, wanted);
    expect(outcomes.map(({ outcome }) => outcome)).toEqual(kinds.map(() => 'drafted'));
    return sendDraft();
  };
  const sendDraft = async () => {
    const setId = await sendTray(world.deps, world.slug, world.personId);
    await world.work();
    expect(await world.db('change_set').where({ change_set_id: setId }).first('state')).toEqual({
      state: 'confirmed',
    });
    return setId;
  };
  const firstOf = async (setId: number) =>
    (await world.db('change').where({ change_set_id: setId }).first('change_id')).change_id as number;

  test('a tray, or all since one, and what undoes it leave the account as it was', async () => {
    const some = fc.shuffledSubarray([...CHANGE_KINDS], { minLength: 1 });
    await fc.assert(
      fc.asyncProperty(some, fc.nat(), async (kinds, at) => {
        const before = await standing();
        const split = 1 + (at % kinds.length);
        const first = await send(kinds.slice(0, split));
        if (split < kinds.length) await send(kinds.slice(split));
        const undo = (what: 'tray' | 'since', setId: number) => async () =>
          undoTogether(world.deps, world.slug, world.personId, await firstOf(setId), what);
        await undo('since', first)();
        await sendDraft();
        expect(await standing()).toEqual(before);
        // All of it is taken back now, so there is nothing more to undo.
        await expect(undo('tray', first)()).rejects.toThrow('nothing to undo');
      }),
      { numRuns: 8 },
    );
  });
});

describe('the budget of a campaign', () => {
  const shop = async (kind: 'share budget' | 'set budget') => {
    const change = await changeFor(kind === 'share budget' ? kind : 'share budget');
    if (change.kind !== 'share budget') throw new Error(change.kind);
    const { campaignId } = change;
    return kind === 'share budget'
      ? change
      : { kind, campaignId, budgetMicros: 40_000_000, wasMicros: 30_000_000 };
  };

  test.each(['share budget', 'set budget'] as const)('is in the tray once: %s comes second', async (kind) => {
    const first = await shop(kind === 'share budget' ? 'set budget' : 'share budget');
    expect(await draft(first)).toMatchObject([{ outcome: 'drafted' }]);
    const [second] = await draft(await shop(kind));
    expect(second).toMatchObject({
      outcome: 'refused',
      said: expect.stringContaining('in the tray already'),
    });
  });

  test('is not shared at another amount than the shared budget has, on the platform or in the tray', async () => {
    const change = await shop('share budget');
    const [other] = await draft({ ...change, budgetMicros: 80_000_000 } as Change);
    expect(other).toMatchObject({
      outcome: 'refused',
      said: expect.stringContaining('Common is 90.00 a day'),
    });
    const fresh = { ...change, budget: 'Fresh' } as Change;
    expect(await draft(fresh)).toMatchObject([{ outcome: 'drafted' }]);
  });
});

test('what others did to budgets and priorities is found as the changes that we would have made, and undone', async () => {
  const before = await standing();
  const { answers } = await world.deps.platform.change(world.slug, [
    { key: 'a', change: { kind: 'share budget', campaignId: 'C8', ...COMMON, ownMicros: 30_000_000 } },
    { key: 'b', change: { kind: 'leave budget', campaignId: 'C7', ...COMMON, ownMicros: 20_000_000 } },
    { key: 'c', change: { kind: 'set priority', campaignId: 'C8', priority: 'high' } },
  ]);
  expect(answers.map(({ outcome }) => outcome)).toEqual(answers.map(() => 'applied'));
  await fetchReport(world.deps, world.slug, world.personId);
  await world.work();
  const { outside } = await viewLists(world.deps, world.slug);
  expect(outside.map(({ said }) => said).sort()).toEqual([
    'Pay campaign Shop out of the shared budget Common, 90.00 a day (was 30.00 of its own)',
    'Pay campaign Tools out of a budget of its own, 20.00 a day (was the shared budget Common)',
    'Priority high (was low) for campaign Shop',
  ]);
  const ids = outside.map(({ id }) => id);
  await undoOutside(world.deps, world.slug, world.personId, ids);
  await sendTray(world.deps, world.slug, world.personId);
  await world.work();
  expect(await standing()).toEqual(before);
});
