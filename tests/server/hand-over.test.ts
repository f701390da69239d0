import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { newListId, type Change } from '@/core';
import { TermsQuerySchema } from '@/contracts/sift';
import { checkGate } from '@/server/use-cases/gate/check-gate';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { sayDone, takeBackToDraft, unsayDone } from '@/server/use-cases/tray/hand-over/say-done';
import { sheetOfSet } from '@/server/use-cases/tray/hand-over/sheet-of-set';
import { viewAccountWide, viewEntries } from '@/server/use-cases/lists/view-entries';
import { viewLists } from '@/server/use-cases/lists/view-lists';
import { weighCell } from '@/server/use-cases/lists/weigh-hangings';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { listTerms } from '@/server/use-cases/sift/sift-terms';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { makeOwnWorld, type World } from '../support/world';

/** An account of one's own, known only from files: what is decided is handed over, said to be done, and shown. */
let world: World;
beforeAll(async () => {
  world = await makeOwnWorld({ name: 'Own', currency: 'EUR', steersBy: 'CPA', target: '18' });
  await world.load(
    [
      'Day,Campaign,Ad group,Keyword,Search term,Clicks,Cost,Conversions',
      '2026-11-20,Hives,Starter,bee hive,bee hive movie,30,15.00,0',
      '2026-11-20,Hives,Starter,bee hive,bee hive kit,30,15.00,4',
      '2026-11-20,Stands,Any,hive stand,hive stand song,20,9.00,0',
      '2026-11-22,Hives,Starter,bee hive,quiet hive,1,0.10,0',
    ].join('\n'),
  );
});
afterAll(() => world.close());

const draft = async (...changes: Change[]) =>
  draftChanges(
    world.deps,
    world.slug,
    world.personId,
    changes.map((change) => ({ change })),
  );
const tray = () => viewTray(world.deps, world.slug);
const send = () => sendTray(world.deps, world.slug, world.personId);
const done = (setId: number) => sayDone(world.deps, world.slug, world.personId, setId);
const counts = async () =>
  (await listTerms(world.deps, world.slug, v.parse(TermsQuerySchema, { view: 'remaining', returns: 'any' })))
    .counts;
const place = async (kind: 'campaign' | 'adGroup', name: string) => {
  const table = kind === 'campaign' ? 'campaign' : 'ad_group';
  const row = await world.db(table).where({ account_id: world.accountId, name }).first(`${table}_id as id`);
  return { kind, id: String(row.id) };
};
const stop = async (text: string, campaign = 'Hives'): Promise<Change> => ({
  ...{ kind: 'add negative', text, match: 'phrase' },
  place: await place('campaign', campaign),
});
const gate = async (query: string) => {
  const { open, stoppedByTray, stoppers } = await checkGate(world.deps, world.slug, query);
  return { open, stoppedByTray, states: stoppers.map((s) => s.state) };
};
const structure = (...rows: string[]) =>
  ['Campaign,Ad group,List,Keyword,Match type,Status', ...rows].join('\n');

describe('a tray of an account without a platform', () => {
  test('drafting where nobody knows whether it is live warns at once', async () => {
    const [outcome] = await draft(await stop('movie'));
    expect(outcome).toMatchObject({
      outcome: 'drafted',
      heed: expect.stringContaining('known only from a report'),
    });
    expect((await tray()).changes[0]!.placeNote).toContain('known only from a report');
  });

  test('handed over it counts with the tray, and never as in force', async () => {
    expect(await counts()).toMatchObject({ remaining: 2, stopped: 1, already: 0 });
    const setId = await send();
    const view = await tray();
    expect(view.changes).toEqual([]);
    expect(view.sent).toMatchObject([{ setId, state: 'handed over', total: 1, trouble: null }]);
    expect(await counts()).toMatchObject({ remaining: 2, stopped: 1, already: 0 });
    expect(await gate('bee hive movie')).toEqual({ open: 2, stoppedByTray: 1, states: ['in the tray'] });
    expect(await draft(await stop('movie'))).toMatchObject([{ outcome: 'already there' }]);
  });

  test('its sheet says what is to be done where, as CSV and as a workbook, and no cell starts a formula', async () => {
    const { setId } = (await tray()).sent[0]!;
    const { content, name } = await sheetOfSet(world.deps, world.slug, setId, 'csv');
    expect(name).toMatch(/^own 20\d\d-\d\d-\d\d tray \d+\.csv$/);
    expect(String(content)).toContain('Add the negative,live,campaign,Hives,,,movie,phrase');
    const { content: workbook } = await sheetOfSet(world.deps, world.slug, setId, 'xlsx');
    expect(
      Buffer.from(workbook as Uint8Array)
        .subarray(0, 2)
        .toString(),
    ).toBe('PK');
    await draft({ kind: 'make list', listId: newListId(crypto.randomUUID()), name: '=1+1' });
    const second = await send();
    expect(String((await sheetOfSet(world.deps, world.slug, second, 'csv')).content)).not.toMatch(/(^|,)=1/m);
    await takeBackToDraft(world.deps, world.slug, world.personId, second);
    await removeFromTray(
      world.deps,
      world.slug,
      (await tray()).changes.map((c) => c.id),
    );
  });

  test('what can not be delivered goes back to the tray, one by one or all', async () => {
    await draft(await stop('song', 'Stands'), await stop('quiet'));
    const setId = await send();
    const [one] = (await tray()).sent.find((s) => s.setId === setId)!.waiting;
    await takeBackToDraft(world.deps, world.slug, world.personId, setId, [one!.id]);
    expect((await tray()).changes.map((c) => c.said)).toEqual([one!.said]);
    expect((await tray()).sent.find((s) => s.setId === setId)!.total).toBe(1);
    await takeBackToDraft(world.deps, world.slug, world.personId, setId);
    expect((await tray()).changes).toHaveLength(2);
    expect((await tray()).sent.some((s) => s.setId === setId)).toBe(false);
    await expect(takeBackToDraft(world.deps, world.slug, world.personId, setId)).rejects.toThrow(/not there/);
    const quiet = (await tray()).changes.find((c) => c.said.includes('quiet'))!;
    await removeFromTray(world.deps, world.slug, [quiet.id]);
  });

  test('said to be done it counts as in force, is shown as such, and can be unsaid', async () => {
    const { setId } = (await tray()).sent[0]!;
    await done(setId);
    await expect(done(setId)).rejects.toThrow(/said already/);
    expect(await counts()).toMatchObject({ already: 1 });
    expect(await gate('bee hive movie')).toEqual({ open: 1, stoppedByTray: 0, states: ['said to be done'] });
    const [line] = (await viewLedger(world.deps, world.slug)).lines;
    expect(line).toMatchObject({
      what: 'Stop “movie” (phrase) in campaign Hives',
      change: { state: 'said' },
    });
    await unsayDone(world.deps, world.slug, world.personId, setId);
    expect(await counts()).toMatchObject({ already: 0 });
    await done(setId);
    expect((await tray()).sent[0]).toMatchObject({ state: 'said to be done', total: 1 });
  });
});

describe('a structure file', () => {
  test('that names no negative says nothing of them', async () => {
    await world.load(structure('Hives,,,,,live', 'Stands,,,,,paused'));
    expect((await tray()).sent[0]).toMatchObject({ state: 'said to be done', confirmed: 0, failed: [] });
  });

  test('tells that a place is paused: stopping there saves 0, and says so', async () => {
    const { changes, stops } = await tray(); // “song” in Stands
    expect(changes).toMatchObject([{ stops: { terms: 0 }, placeNote: expect.stringContaining('saves 0') }]);
    expect(stops).toMatchObject({ terms: 0, costMicros: null });
  });

  test('shows what was said to be done: there, missing, and different', async () => {
    await draft(await stop('quiet'), { ...(await stop('still')), match: 'exact' } as Change);
    await done(await send()); // with “song” in Stands
    await world.load(
      structure(
        'Hives,,,movie,negative phrase,live',
        'Hives,,,still,negative phrase,live',
        'Stands,,,other,negative phrase,live',
      ),
    );
    const states = (await viewLedger(world.deps, world.slug)).lines
      .filter((l) => l.change)
      .map((l) => `${l.what} ${l.change!.state}`);
    expect(new Set(states)).toEqual(
      new Set([
        'Stop “movie” (phrase) in campaign Hives there',
        'Stop “song” (phrase) in campaign Stands missing',
        'Stop “quiet” (phrase) in campaign Hives missing',
        'Stop “still” (exact) in campaign Hives different',
      ]),
    );
    expect((await tray()).sent).toMatchObject([{ state: 'partly failed', total: 3, confirmed: 0 }]);
    expect(await gate('bee hive movie')).toMatchObject({ states: ['in force'] });
    expect(await gate('quiet hive')).toMatchObject({ open: 1, states: [] });
  });

  test('shows lists that were made, filled, hung and renamed, and what was removed', async () => {
    const listId = newListId(crypto.randomUUID());
    const entry = { text: 'jobs', match: 'broad', place: { kind: 'list', id: listId } } as const;
    const campaign = await place('campaign', 'Hives');
    await draft(
      { kind: 'make list', listId, name: 'Work' },
      { kind: 'add negative', ...entry },
      { kind: 'hang list', listId, campaignId: campaign.id },
      { ...(await stop('movie')), kind: 'remove negative' } as Change,
    );
    await done(await send());
    expect((await viewEntries(world.deps, world.slug, listId)).entries).toMatchObject([
      { text: 'jobs', drafted: 'said to be done' },
    ]);
    await world.load(
      structure(
        'Hives,,,still,negative phrase,live',
        ',,Work,jobs,negative broad,live',
        'Hives,,Work,,,live',
      ),
    );
    expect((await tray()).sent).toMatchObject([{ state: 'confirmed', total: 4, confirmed: 4 }]);
    const { lists, campaigns } = await viewLists(world.deps, world.slug);
    expect(lists).toMatchObject([{ name: 'Work', isNew: false, entries: 1 }]);
    expect(lists[0]!.hungOn).toEqual([campaigns.findIndex((c) => c.name === 'Hives')]);
    expect(await gate('bee hive movie')).toMatchObject({ states: [] });

    await draft({ kind: 'rename list', listId: lists[0]!.id, name: 'Careers', was: 'Work' });
    await done(await send());
    await world.load(structure('Hives,,Careers,,,live', ',,Careers,jobs,negative broad,live'));
    expect((await viewLists(world.deps, world.slug)).lists).toMatchObject([{ name: 'Careers', entries: 1 }]);
    expect((await tray()).sent).toMatchObject([{ state: 'confirmed', confirmed: 1 }]);
  });

  test('that comes again, byte for byte, tells that what was said to be done is not there', async () => {
    const file = structure('Hives,,Careers,,,live', ',,Careers,jobs,negative broad,live');
    await draft(await stop('music'));
    await done(await send());
    await world.load(file);
    const { sent } = await tray();
    expect(sent).toMatchObject([{ state: 'partly failed', total: 1, confirmed: 0, lost: 1 }]);
    const { setId } = sent[0]!;
    await takeBackToDraft(world.deps, world.slug, world.personId, setId);
    const { changes, sent: after } = await tray();
    expect(changes).toMatchObject([
      { said: 'Stop “music” (phrase) in campaign Hives', failedBefore: 'read back: missing' },
    ]);
    expect(after).toMatchObject([{ lost: 0 }]);
    await expect(takeBackToDraft(world.deps, world.slug, world.personId, setId)).rejects.toThrow(
      /is in the tray/,
    );
    await removeFromTray(world.deps, world.slug, [changes[0]!.id]);
  });

  test('knows a negative again however it is written, and takes it away so', async () => {
    const negatives = async () =>
      (await world.db('negative').where({ account_id: world.accountId }).select('text')).filter((n) =>
        /suit/i.test(n.text),
      ).length;
    const file = (text: string, status: string) => structure(`Hives,,,${text},negative phrase,${status}`);
    await world.load(file('Men’s  bee-suit', 'live'));
    await world.load(file('Men’s  bee-suit', 'live'));
    await world.load(file('mens bee suit', 'live'));
    expect(await negatives()).toBe(1);
    await world.load(file("MEN'S bee suit!", 'removed'));
    expect(await negatives()).toBe(0);
  });

  test('part by part: what it does not show is in force no more, what no file can show stays said', async () => {
    const { lists, campaigns } = await viewLists(world.deps, world.slug);
    const everywhere = { kind: 'account', id: null } as const;
    await draft(
      { kind: 'add negative', text: 'meme', match: 'broad', place: everywhere },
      { kind: 'hang list', listId: lists[0]!.id, campaignId: null },
    );
    const setId = await send();
    const accountWide = async () => (await viewAccountWide(world.deps, world.slug)).entries;
    const cell = () => weighCell(world.deps, world.slug, lists[0]!.id, campaigns.at(-1)!.id);
    expect(await accountWide()).toEqual([]);
    await done(setId);
    expect(await accountWide()).toMatchObject([{ text: 'meme', drafted: 'said to be done' }]);
    expect(await cell()).toMatchObject({ by: 'account', isSaid: true });
    await world.load(structure('Hives,,Careers,,,live', ',,Careers,jobs,negative broad,live'));
    expect(await accountWide()).toEqual([]);
    expect((await tray()).sent).toMatchObject([{ state: 'said to be done', total: 2, confirmed: 0 }]);
    expect(await cell()).toMatchObject({ by: 'account', isSaid: true });
    await unsayDone(world.deps, world.slug, world.personId, setId);
    expect(await cell()).toMatchObject({ isSaid: false });
  });
});
