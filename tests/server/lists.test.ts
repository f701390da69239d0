import { randomUUID } from 'node:crypto';
import ExcelJS from 'exceljs';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { ListEdit } from '@/contracts/list-edits';
import type { PlatformChange } from '@/contracts/platform';
import type { Change } from '@/core';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { fetchReport } from '@/server/use-cases/intake/fetch-report';
import { draftEdit, previewEdit } from '@/server/use-cases/lists/edit-list';
import { takeOverVersion, viewHistory } from '@/server/use-cases/lists/history';
import { readListFile, writeListFile } from '@/server/use-cases/lists/list-files';
import { dropHangRule, exceptFromRule, keepHangRule } from '@/server/use-cases/lists/rule-hangings';
import {
  compareLists,
  viewAccountWide,
  viewCouldBe,
  viewEntries,
  viewEntriesHealth,
  viewThemesOfList,
} from '@/server/use-cases/lists/view-entries';
import { viewListsBeside } from '@/server/use-cases/lists/view-beside';
import { viewLists, viewListsHealth } from '@/server/use-cases/lists/view-lists';
import { weighCell, weighHangings } from '@/server/use-cases/lists/weigh-hangings';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { makeWorld, type World } from '../support/world';
import { aSeed } from '../support/seed';

let world: World;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

const ask = <Args extends unknown[], Answer>(
  question: (deps: World['deps'], slug: string, ...args: Args) => Promise<Answer>,
  ...args: Args
) => question(world.deps, world.slug, ...args);
const draft = (...changes: Change[]) =>
  ask(
    draftChanges,
    world.personId,
    changes.map((change) => ({ change })),
  );
const edit = (wanted: ListEdit, because?: string) => ask(draftEdit, world.personId, wanted, because);
const plan = (wanted: ListEdit) => ask(previewEdit, wanted);
const send = async () => {
  await ask(sendTray, world.personId);
  await world.work();
};
const listNamed = async (name: string) => (await ask(viewLists)).lists.find((l) => l.name === name)!;
const campaignNamed = async (name: string) =>
  (await ask(viewLists)).campaigns.find((c) => c.name === name)!.id;
const entriesOf = async (name: string) =>
  (await ask(viewEntries, (await listNamed(name)).id)).entries
    .filter((e) => e.drafted !== 'removed')
    .map((e) => `${e.match}: ${e.text}`);
const trayKinds = async () => (await ask(viewTray)).changes.map((c) => c.kind);
/** What somebody else does on the platform. */
async function elsewhere(...changes: PlatformChange[]) {
  const body = JSON.stringify({ changes: changes.map((change) => ({ key: randomUUID(), change })) });
  const response = await fetch(`${world.platformUrl}/accounts/small/changes`, { method: 'POST', body });
  const { answers } = (await response.json()) as { answers: { outcome: string }[] };
  expect(answers.every((answer) => answer.outcome === 'applied')).toBe(true);
  await fetchReport(world.deps, world.slug, null);
  await world.work();
}
const paste = (text: string, over: Partial<Extract<ListEdit, { do: 'paste' }>> = {}): ListEdit => ({
  ...{ do: 'paste', into: { make: 'Films' }, holds: 'words', text },
  ...over,
});

describe('the lists', () => {
  test('say where they hang, what they stop there, and which are left alone', async () => {
    const view = await ask(viewLists);
    expect(view.campaigns.map((c) => c.name)).toEqual(['Courses', 'Hives']);
    const [old, work] = view.lists;
    expect(old).toMatchObject({ name: 'Old', hungOn: [], entries: 1, room: 3_999, waits: false });
    expect(old!.hurts).toEqual({ campaign: [], keywords: [] });
    expect(work).toMatchObject({ name: 'Work', hungOn: [0], entries: 1 });
    expect(view.accountWide).toEqual({ used: 0, most: 1_200 });
  });

  test('tell what hanging would do before it is put in the tray, and where it hurts', async () => {
    const { lists, campaigns } = await ask(viewLists);
    const all = { lists: lists.map((l) => l.id), campaigns: campaigns.map((c) => c.id), hang: true };
    expect(await ask(weighHangings, all)).toMatchObject({
      changes: 3,
      weight: { terms: 1 },
      hurt: { count: 0 },
    });
    await edit(paste('"bee hive"\n[bee course]'), 'to be seen');
    const films = await listNamed('Films');
    const cell = await ask(weighCell, films.id, await campaignNamed('Hives'));
    expect(cell).toMatchObject({ hangs: false, by: null, protectedTerms: { count: 1 } });
    expect(cell.faults.first).toMatchObject([
      { entry: { text: 'bee hive', match: 'phrase' }, keywords: [{ severity: 'narrowed', count: 1 }] },
    ]);
    const { weight, byCampaign } = await ask(weighHangings, all);
    expect(byCampaign.length).toBeGreaterThan(1);
    const costs = byCampaign.map((one) => one.weight.costMicros ?? 0);
    expect(costs).toEqual(costs.toSorted((a, b) => b - a)); // the most spend first
    expect(costs.reduce((sum, cost) => sum + cost, 0)).toBe(weight.costMicros);
    const answer = await ask(weighHangings, { lists: [films.id], campaigns: 'account', hang: true });
    expect(answer.touched.map((t) => t.severity)).toEqual(['narrowed']);
  });
});

describe('from pasted lines to the platform and back', () => {
  test('a list is made, hung by rule, one campaign pulled out, sent and read back', async () => {
    const planned = await plan(paste('movie\n???\nMOVIE\n"bee course tattoo"\nLK-2041'));
    expect(planned).toMatchObject({
      changes: 3,
      twice: 1,
      refused: { count: 2 },
      stops: { terms: 0 },
      over: [],
    });
    const { changeIds } = await edit(paste('movie\n"bee course tattoo"'));
    expect(changeIds.length).toBe(3);
    const { id } = await listNamed('Films');
    const ruleId = await ask(keepHangRule, world.personId, { list: id, rule: { statuses: ['live'] } });
    expect((await listNamed('Films')).wanted).toEqual([0, 1]);
    await draft(
      ...(await ask(viewLists)).campaigns.map((c) => ({
        kind: 'hang list' as const,
        listId: id,
        campaignId: c.id,
      })),
    );
    expect((await listNamed('Films')).wanted).toEqual([]);
    const courses = await campaignNamed('Courses');
    await draft({ kind: 'take down list', listId: id, campaignId: courses });
    expect((await listNamed('Films')).wanted).toEqual([0]);
    await ask(exceptFromRule, world.personId, ruleId, { campaign: courses, isOut: true });
    expect((await listNamed('Films')).wanted).toEqual([]);
    await send();
    const films = await listNamed('Films');
    expect(films).toMatchObject({ isNew: false, hungOn: [1], entries: 2, wanted: [], waits: false });
    expect(films.rules).toMatchObject([{ said: 'all live campaigns', except: [0] }]);
    const { versions } = await ask(viewHistory, films.id);
    expect(versions).toMatchObject([{ what: 'made', state: 'own', by: 'Maren Oakes' }]);
    expect(versions[0]!.said.join('; ')).toContain('hung on Hives');
    const { entries } = await ask(viewEntries, films.id);
    expect(entries[0]).toMatchObject({ text: 'movie', by: 'Maren Oakes', drafted: null });
    await ask(dropHangRule, world.personId, ruleId);
    expect((await listNamed('Films')).rules).toEqual([]);
  });

  test('a list taken out of the tray takes its entries and its rule with it', async () => {
    await edit(paste('movie\ncast'));
    const { id } = await listNamed('Films');
    await ask(keepHangRule, world.personId, { list: id, rule: {} });
    const { changes } = await ask(viewTray);
    await ask(removeFromTray, [changes[0]!.id]);
    expect(await trayKinds()).toEqual([]);
    expect(await world.db('hang_rule').count()).toEqual([{ count: 0 }]);
  });

  test('more than the limit is told in the plan and is not sent', async () => {
    const lines = Array.from({ length: 4_001 }, (_, i) => `word${i}`).join('\n');
    const planned = await plan(paste(`${lines}\nword1 free`));
    expect(planned.over[0]).toMatch(
      /would hold 4002 negatives; its limit is 4000.*Needless there.*word1 free/,
    );
    await edit(paste(`${lines}\nword1 free`));
    await expect(send()).rejects.toThrow('its limit is 4000');
  });
});

describe('edits', () => {
  test('match types, moving, copying, merging, splitting and comparing come to changes in the tray', async () => {
    await edit(paste('job offer\njobs\nmovie', { into: { make: 'Mixed' } }));
    await send();
    const [mixed, old] = [await listNamed('Mixed'), await listNamed('Old')];
    await edit({
      do: 'match',
      list: mixed.id,
      entries: [{ text: 'movie', match: 'phrase' }],
      match: 'exact',
    });
    expect(await entriesOf('Mixed')).toEqual(['phrase: job offer', 'phrase: jobs', 'exact: movie']);
    await edit({
      ...{ do: 'move', list: mixed.id, into: { id: old.id }, keep: false },
      entries: [{ text: 'movie', match: 'exact' }],
    });
    expect(await entriesOf('Old')).toEqual(['phrase: tattoo', 'exact: movie']);
    expect(await entriesOf('Mixed')).toEqual(['phrase: job offer', 'phrase: jobs']);
    const { parts } = await ask(viewThemesOfList, mixed.id);
    expect(parts).toMatchObject([{ theme: 'job', entries: { length: 2 } }]);
    expect(await plan({ do: 'split', list: mixed.id, themes: ['job'] })).toMatchObject({
      proof: { same: true, adGroups: 3 },
    });
    const compared = await ask(compareLists, mixed.id, old.id);
    expect(compared).toMatchObject({ onlyFirst: { length: 2 }, onlySecond: { length: 2 }, both: [] });
    const work = await listNamed('Work');
    const merging = await plan({ do: 'merge', list: work.id, from: old.id });
    expect(merging).toMatchObject({ stops: { terms: 1 }, reaches: { campaigns: ['Courses'] } });
    await edit({ do: 'merge', list: work.id, from: old.id });
    expect(await entriesOf('Work')).toEqual(['broad: salary', 'phrase: tattoo', 'exact: movie']);
    await send();
    expect((await ask(viewLists)).lists.map((l) => l.name)).toEqual(['Mixed', 'Work']);
  });

  test('a list is renamed, and a name that is taken is refused', async () => {
    const { id } = await listNamed('Old');
    const rename = (name: string) => draft({ kind: 'rename list', listId: id, name, was: 'Old' });
    expect((await rename('Work'))[0]).toMatchObject({ outcome: 'refused' });
    expect((await rename('Body art'))[0]).toMatchObject({ outcome: 'drafted' });
    await send();
    expect(await listNamed('Body art')).toMatchObject({ id });
    expect((await ask(viewHistory, id)).versions[0]!.said).toEqual(['renamed from Old to Body art']);
  });

  test('an edit that would stop a protected term is held back, and forced with a reason', async () => {
    const work = await listNamed('Work');
    const into = { id: work.id };
    await draft({ kind: 'hang list', listId: work.id, campaignId: await campaignNamed('Hives') });
    const planned = await plan(paste('"bee hive kit"\nmeme', { into }));
    expect(planned).toMatchObject({ protectedTerms: { first: ['bee hive kit'] }, changes: 2 });
    expect(await edit(paste('"bee hive kit"\nmeme', { into }))).toMatchObject({
      changeIds: { length: 1 },
      heldBack: { count: 1 },
    });
    expect((await edit(paste('"bee hive kit"', { into }), 'sold out')).heldBack).toBe(null);
  });

  test('the rest of a list hangs where the whole of it hurts', async () => {
    await edit(paste('"bee hive"\nmovie'), 'to be seen');
    const { id } = await listNamed('Films');
    const campaign = await campaignNamed('Hives');
    await edit({ do: 'rest', list: id, campaign, without: [{ text: 'bee hive', match: 'phrase' }] });
    const rest = await listNamed('Films · for Hives');
    expect(rest).toMatchObject({ entries: 1, drafted: [{ campaign: 1, hang: true }] });
  });

  test('what comes to nothing, or names what is not there, is refused', async () => {
    const { id } = await listNamed('Work');
    await expect(edit({ do: 'drop needless', list: id })).rejects.toThrow('nothing to change');
    await expect(edit({ do: 'merge', list: id, from: '999' })).rejects.toThrow('not there');
    await expect(edit({ do: 'merge', list: id, from: id })).rejects.toThrow('with itself');
  });
});

test('two people edit one list: both edits stand, and the second of one thing is told', async () => {
  const { id } = await listNamed('Old');
  const tobias = (await world.db('person').where({ name: 'Tobias Finch' }).first('person_id'))
    .person_id as number;
  await edit(paste('ink\nneedle', { into: { id } }));
  const outcome = await draftEdit(world.deps, world.slug, tobias, paste('ink\npiercing', { into: { id } }));
  expect(outcome.changeIds.length).toBe(1);
  expect(await entriesOf('Old')).toEqual([
    'phrase: tattoo',
    'phrase: ink',
    'phrase: needle',
    'phrase: piercing',
  ]);
  const rename = (name: string, person: number) =>
    draftChanges(world.deps, world.slug, person, [
      { change: { kind: 'rename list', listId: id, name, was: 'Old' } },
    ]);
  await rename('Body art', world.personId);
  expect((await rename('Skin', tobias))[0]).toMatchObject({
    outcome: 'already there',
    said: expect.stringContaining('put in by Maren Oakes') as string,
  });
});

describe('what could be a list', () => {
  test('singles move into a list with the proof, and every gate answers as before', async () => {
    const campaigns = (await ask(viewLists)).campaigns;
    for (const { id } of campaigns) {
      await draft(
        ...['jigsaw', 'crochet', 'stencil'].map((text): Change => ({
          ...{ kind: 'add negative', text, match: 'phrase' },
          place: { kind: 'campaign', id },
        })),
      );
    }
    await send();
    const { sets } = await ask(viewCouldBe);
    expect(sets).toMatchObject([{ saves: 1, campaigns: [{ name: 'Hives' }, { name: 'Courses' }] }]);
    const gather: ListEdit = {
      ...{ do: 'gather', name: 'Crafts', entries: sets[0]!.entries },
      from: sets[0]!.campaigns.map(({ id }) => ({ kind: 'campaign', id })),
    };
    const planned = await plan(gather);
    expect(planned).toMatchObject({
      proof: { same: true, adGroups: 3 },
      stops: { terms: 0 },
      reopens: { terms: 0 },
    });
    await edit(gather);
    await send();
    expect(await listNamed('Crafts')).toMatchObject({ entries: 3, hungOn: [0, 1] });
    expect((await ask(viewCouldBe)).sets).toEqual([]);
    expect(await world.db('negative').where({ place_kind: 'campaign' })).toEqual([]);
  });

  test('account-wide negatives go into a list on the whole account', async () => {
    await draft({ kind: 'add negative', text: 'meme', match: 'broad', place: { kind: 'account', id: null } });
    await send();
    expect(await ask(viewAccountWide)).toMatchObject({
      used: 1,
      entries: [{ text: 'meme', stops: { terms: 0 } }],
    });
    await edit({
      ...{ do: 'gather', name: 'Everywhere', entries: [{ text: 'meme', match: 'broad' }] },
      from: [{ kind: 'account', id: null }],
    });
    await send();
    expect(await listNamed('Everywhere')).toMatchObject({ hungOn: 'account', entries: 1 });
    expect((await ask(viewAccountWide)).used).toBe(0);
  });
});

describe('placements', () => {
  test('are cleaned, folded by host, sent, and taken out again', async () => {
    const text = 'https://www.Films.example/\nold.films.example/clips\nno address\nb.example\nb.example';
    const planned = await plan(paste(text, { holds: 'placements' }));
    expect(planned).toMatchObject({ changes: 3, twice: 1, folded: { count: 1 }, refused: { count: 1 } });
    await edit(paste(text, { holds: 'placements' }));
    await send();
    const films = await listNamed('Films');
    expect(films).toMatchObject({ holds: 'placements', entries: 2, room: 19_998 });
    await expect(edit(paste('movie', { into: { id: films.id } }))).rejects.toThrow('holds placements');
    await edit(paste('example.com\nsub.b.example\nexample', { into: { id: films.id }, holds: 'placements' }));
    await edit({ do: 'remove placements', list: films.id, addresses: ['films.example'] });
    await send();
    const { entries } = await ask(viewEntries, films.id);
    expect(entries.map((e) => e.text).sort()).toEqual(['b.example', 'example.com']);
  });
});

describe('what somebody else changes on the platform', () => {
  const old = { kind: 'list' as const, id: 'S2' };

  test('waits to be looked at; nothing is sent for that list until then', async () => {
    await elsewhere(
      { kind: 'rename list', listId: 'S2', name: 'Body art' },
      { kind: 'add negative', text: 'ink', match: 'broad', place: old },
    );
    const { waiting, lists } = await ask(viewLists);
    expect(waiting).toMatchObject([{ listName: 'Body art', by: null, state: 'waits', isThere: true }]);
    expect(waiting[0]!.said).toEqual(['renamed from Old to Body art', 'added “ink” (broad)']);
    const { id } = lists.find((l) => l.waits)!;
    await draft({ kind: 'hang list', listId: id, campaignId: await campaignNamed('Hives') });
    await expect(send()).rejects.toThrow('Somebody else changed the list Body art');
    await ask(takeOverVersion, world.personId, waiting[0]!.id);
    await expect(ask(takeOverVersion, world.personId, waiting[0]!.id)).rejects.toThrow('settled already');
    await send();
    expect(await listNamed('Body art')).toMatchObject({ hungOn: [1], waits: false });
  });

  test('is undone by changes in the tray', async () => {
    await elsewhere({ kind: 'remove negative', text: 'tattoo', match: 'phrase', place: old });
    const { waiting } = await ask(viewLists);
    await edit({ do: 'undo version', version: waiting[0]!.id });
    expect(await entriesOf('Old')).toEqual(['phrase: tattoo']);
    await send();
    expect(await ask(viewLists)).toMatchObject({ waiting: [] });
  });

  test('a list that was removed is made again, with what stood in it', async () => {
    await elsewhere(
      { kind: 'take down list', listId: 'S1', campaignId: 'C2' },
      { kind: 'remove negative', text: 'salary', match: 'broad', place: { kind: 'list', id: 'S1' } },
      { kind: 'remove list', listId: 'S1' },
    );
    const { waiting } = await ask(viewLists);
    expect(waiting).toMatchObject([{ listName: 'Work', what: 'removed', isThere: false }]);
    await edit({ do: 'undo version', version: waiting[0]!.id });
    await send();
    expect(await listNamed('Work')).toMatchObject({ hungOn: [0], entries: 1 });
  });

  test('what comes in while ours is on its way is told apart from it', async () => {
    await edit(paste('movie', { into: { id: (await listNamed('Old')).id } }));
    await world.stopPlatform();
    await ask(sendTray, world.personId);
    await world.startPlatform();
    await elsewhere({ kind: 'add negative', text: 'ink', match: 'broad', place: old });
    const { id } = await listNamed('Old');
    const { versions } = await ask(viewHistory, id);
    expect(versions.map((v) => [v.by, v.said[0]])).toEqual(
      expect.arrayContaining([
        [null, 'added “ink” (broad)'],
        ['Maren Oakes', 'added “movie” (phrase)'],
      ]),
    );
  });

  test('an earlier state is put back by changes in the tray', async () => {
    const { id } = await listNamed('Old');
    await edit(paste('one\ntwo', { into: { id } }));
    await send();
    await edit({ do: 'remove', list: id, entries: [{ text: 'tattoo', match: 'phrase' }] });
    await send();
    const { versions } = await ask(viewHistory, id);
    await edit({ do: 'put back', list: id, version: versions[1]!.id });
    expect(await entriesOf('Old')).toEqual(['phrase: one', 'phrase: two', 'phrase: tattoo']);
  });
});

/** The list Old hangs on the campaign Courses. */
async function hangOld() {
  await world.close();
  const seed = aSeed();
  seed.structure.hangings = [{ listId: 'S2', campaignId: 'C2', status: 'live', since: '2026-11-18' }];
  world = await makeWorld(seed);
}

test('what a list stopped is told from the days before it hung', async () => {
  await hangOld();
  const { id } = await listNamed('Old');
  const health = (await ask(viewListsHealth)).lists[id]!;
  const { rows } = await world.db.raw<{ rows: { clicks: number }[] }>(
    `select sum(clicks)::integer as clicks from term_day join term using (account_id, term_id)
      where key = 'bee course tattoo' and day < '2026-11-18'`,
  );
  expect(health.stopped).toMatchObject({ terms: 1, clicks: rows[0]!.clicks, known: 1, unknown: 0 });
  const ofEntries = (await ask(viewEntriesHealth, id)).entries['phrase tattoo']!;
  expect(ofEntries.stopped).toEqual(health.stopped);
  expect((await ask(viewListsHealth)).lists[(await listNamed('Work')).id]!.stopped).toMatchObject({
    known: 0,
  });
});

test('what the terms of a list cost where it hangs is told of two windows', async () => {
  await hangOld();
  const { id } = await listNamed('Old');
  const [now, then] = [
    { from: '2026-11-18', to: '2026-11-20' },
    { from: '2026-11-10', to: '2026-11-16' },
  ];
  const inWindow = async ({ from, to }: typeof now) =>
    (
      await world.db.raw<{ rows: { clicks: number }[] }>(
        `select coalesce(sum(clicks), 0)::integer as clicks from term_day join term using (account_id, term_id)
          where key = 'bee course tattoo' and day between ? and ?`,
        [from, to],
      )
    ).rows[0]!.clicks;
  const { lists } = await viewListsBeside(world.deps, world.slug, { days: now, beside: then });
  expect(await inWindow(then)).toBeGreaterThan(0);
  expect(lists[id]).toMatchObject({
    now: { clicks: await inWindow(now) },
    then: { clicks: await inWindow(then) },
  });
  const placements = (await ask(viewLists)).lists.filter(({ holds }) => holds === 'placements');
  for (const list of placements) expect(lists).not.toHaveProperty(list.id);
});

/** Bytes as they come from a browser, in two parts. */
const sent = (bytes: Uint8Array, announced: number | null = null) => ({ bytes: inTwo(bytes), announced });
async function* inTwo(bytes: Uint8Array) {
  await Promise.resolve();
  yield bytes.subarray(0, 5);
  yield bytes.subarray(5);
}

describe('files', () => {
  test.each(['csv', 'xlsx', 'json'] as const)('a list goes out as %s and comes in again', async (kind) => {
    await edit(paste('movie\n"=cmd plans"\n[bee, course]', { into: { make: 'To & fro' } }));
    const list = await listNamed('To & fro');
    const { name, content } = await ask(writeListFile, list.id, kind);
    expect(name).toBe(`To-fro.${kind}`);
    const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
    const read = await readListFile(world.deps, sent(bytes));
    expect(read.lists[0]!.holds).toBe('words');
    await edit(paste(read.lists[0]!.text, { into: { make: 'Back' }, match: 'broad' }));
    expect(await entriesOf('Back')).toEqual(await entriesOf('To & fro'));
  });

  test('a workbook gives a list a sheet, and what is no list file says where', async () => {
    const book = new ExcelJS.Workbook();
    book.addWorksheet('Films').addRow(['movie', 'exact']);
    book.addWorksheet('Sites').addRow(['films.example']);
    const bytes = new Uint8Array(await book.xlsx.writeBuffer());
    expect((await readListFile(world.deps, sent(bytes))).lists).toMatchObject([
      { name: 'Films', holds: 'words', text: 'movie\texact' },
      { name: 'Sites', holds: 'placements' },
    ]);
    const text = (json: unknown) => new TextEncoder().encode(JSON.stringify(json));
    await expect(
      readListFile(world.deps, sent(text({ gatepost: 'lists', version: 2, lists: [] }))),
    ).rejects.toThrow('version');
    await expect(readListFile(world.deps, sent(new TextEncoder().encode('{ nothing')))).rejects.toThrow(
      'no JSON',
    );
    await expect(readListFile(world.deps, sent(new Uint8Array()))).rejects.toThrow('empty');
    const large = new Uint8Array(20 * 1024 ** 2 + 1);
    await expect(readListFile(world.deps, sent(large))).rejects.toThrow('up to 20 MB');
    await expect(readListFile(world.deps, sent(Buffer.from('jobs\n'), 9))).rejects.toThrow(
      'did not come in whole',
    );
  });
});

describe('what was wrong in silence', () => {
  test('a list that is brought again says where it hangs, though nothing of it changes', async () => {
    const { id } = await listNamed('Work');
    const again = await plan(paste('salary', { into: { id }, match: 'broad' }));
    expect(again).toMatchObject({ changes: 0, already: 1, reaches: { campaigns: ['Courses'] } });
  });

  test('dropping what is needless is proved by what gates answer', async () => {
    const { id } = await listNamed('Work');
    await edit(paste('salary week\nsalary', { into: { id }, match: 'phrase' }));
    await send();
    const dropped = await plan({ do: 'drop needless', list: id });
    expect(dropped.changes).toBeGreaterThan(0);
    expect(dropped.proof).toMatchObject({ same: true });
  });

  test('a list that was removed elsewhere keeps its name wherever it is named', async () => {
    const { id } = await listNamed('Old');
    await draft({ kind: 'add negative', text: 'ink', match: 'broad', place: { kind: 'list', id } });
    await elsewhere(
      { kind: 'remove negative', text: 'tattoo', match: 'phrase', place: { kind: 'list', id: 'S2' } },
      { kind: 'remove list', listId: 'S2' },
    );
    expect((await ask(viewTray)).changes[0]!.said).toBe('Stop “ink” (broad) in list Old (removed)');
  });
});
