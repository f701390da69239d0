import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Change } from '@/core';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { setVerdict } from '@/server/use-cases/sift/set-verdict';
import { writeNote } from '@/server/use-cases/sift/remember';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { loadMirror } from '@/server/repositories/structure/structure';
import { makeWorld, type World } from '../support/world';

/** The ledger is found by who did it, by what it is about, and by what it says. */
let world: World;
let tobias: number;
let campaignId: string;
beforeAll(async () => {
  world = await makeWorld();
  const { person_id } = await world.db('person').where({ name: 'Tobias Finch' }).first('person_id');
  tobias = person_id as number;
  const { campaigns, adGroups } = await loadMirror(world.db, world.accountId);
  campaignId = campaigns[0]!.id;
  const adGroup = adGroups.find((one) => one.campaignId === campaignId)!;
  const stop = (text: string, match: 'broad' | 'phrase' | 'exact', place: object) =>
    ({ kind: 'add negative', text, match, place }) as Change;
  const send = async (personId: number, ...changes: Change[]) => {
    const wanted = changes.map((change) => ({ change }));
    await draftChanges(world.deps, world.slug, personId, wanted);
    await sendTray(world.deps, world.slug, personId);
    await world.work();
  };
  const account = { kind: 'account', id: null };
  await send(world.personId, stop('movie', 'broad', account), stop('zither song', 'phrase', account));
  await send(tobias, stop('zither song book', 'exact', { kind: 'adGroup', id: adGroup.id }));
  await send(world.personId, stop('lute-song', 'phrase', account));
  await send(tobias, stop('zither', 'exact', { kind: 'campaign', id: campaignId }));
  await setVerdict(world.deps, world.slug, tobias, {
    raw: 'old zither song',
    verdict: { is: 'kept', note: null },
  });
  await writeNote(world.deps, world.slug, world.personId, {
    kind: 'term',
    about: 'Old Zither Song',
    body: 'Ours?',
  });
});
afterAll(() => world.close());

const find = async (asked: Parameters<typeof viewLedger>[2]) =>
  (await viewLedger(world.deps, world.slug, asked)).lines.map(({ what }) => what);

describe('the ledger is found', () => {
  test('by who did it', async () => {
    const own = await find({ who: String(tobias) });
    expect(own).toHaveLength(3);
    expect(own.join()).not.toContain('movie');
    expect(await find({ who: 'nobody' })).toEqual([]);
  });

  test('by an element, of which a campaign holds its ad groups', async () => {
    const on = await find({ on: `campaign:${campaignId}` });
    expect(on.map((what) => /“(.*?)”/.exec(what)![1])).toEqual(['zither', 'zither song book']);
    expect(await find({ on: 'list:999999' })).toEqual([]);
  });

  test('by a term: what was decided about it, and every negative that would stop it', async () => {
    const about = await find({ term: 'Old  zither SONG' });
    expect(about.map((what) => /“(.*?)”/.exec(what)?.[1]?.toLowerCase())).toEqual([
      ...['old zither song', 'old zither song', 'zither song'],
    ]);
    expect(await find({ term: 'song zither' })).toEqual([]);
    expect(await find({ term: 'a movie' })).toHaveLength(1);
    expect(await find({ term: 'old lute song' })).toHaveLength(1); // the core says what a word is
  });

  test('by several of them together, and by letters', async () => {
    expect(await find({ term: 'old zither song', who: String(tobias) })).toHaveLength(1);
    expect(await find({ find: 'tobias', on: `campaign:${campaignId}` })).toHaveLength(2);
    expect(await find({ find: '%' })).toEqual([]);
  });
});
