import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { newListId, shiftDay, type Change } from '@/core';
import { StandingQuerySchema } from '@/contracts/standing';
import { loadMirror } from '@/server/repositories/structure/structure';
import { moveClock } from '@/server/use-cases/intake/fetch-report';
import { putStandingBack, viewStanding } from '@/server/use-cases/ledger/as-it-was';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { refreshMirror } from '@/server/use-cases/tray/read-back';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { makeWorld, type World } from '../support/world';

/** The account as it was on a day: kept by the database, whichever way the mirror is written. */
let world: World;
let before: string;
beforeAll(async () => {
  world = await makeWorld();
  const { platform_day: today } = await world.db('account').where({ account_id: world.accountId }).first();
  before = today as string;
  await pass(1);
});
afterAll(() => world.close());

async function pass(days: number) {
  await moveClock(world.deps, world.slug, days);
  await world.work();
}
const view = (day: string, query: object = {}) =>
  viewStanding(world.deps, world.slug, v.parse(StandingQuerySchema, { day, ...query }));
const back = (day: string, ids: number[]) =>
  putStandingBack(world.deps, world.slug, world.personId, { day, ids });
async function send(...changes: Change[]) {
  const wanted = changes.map((change) => ({ change }));
  const outcomes = await draftChanges(world.deps, world.slug, world.personId, wanted);
  expect(outcomes.map(({ outcome }) => outcome)).toEqual(changes.map(() => 'drafted'));
  await sendDraft();
}
async function sendDraft() {
  await sendTray(world.deps, world.slug, world.personId);
  await world.work();
}
const movie: Change = {
  kind: 'add negative',
  text: 'movie',
  match: 'broad',
  place: { kind: 'account', id: null },
};

describe('the account as it was', () => {
  test('a day that is not past is refused, and at first nothing differs', async () => {
    await expect(view(shiftDay(before, 1))).rejects.toThrow('Choose a day before');
    expect(await view(before)).toMatchObject({ lines: [], gone: 0, isNew: 0 });
    const all = await view(before, { show: 'all' });
    expect(all.lines.length).toBe(all.same);
    expect(all.same).toBeGreaterThan(0);
    expect(all.lines.some(({ from }) => from === null)).toBe(true);
  });

  test('what came since is new beside the day before, and goes when it is put back', async () => {
    await send(movie);
    const { lines } = await view(before);
    expect(lines).toMatchObject([
      {
        is: 'new',
        what: '“movie” (broad)',
        where: 'the whole account',
        from: shiftDay(before, 1),
        until: null,
      },
    ]);
    await pass(1);
    expect((await view(shiftDay(before, 1))).lines).toEqual([]);

    const { said, changeIds } = await back(before, [lines[0]!.id]);
    expect(said).toContain(`as on ${before}`);
    expect(changeIds).toHaveLength(1);
    await sendDraft();
    expect((await view(before)).lines).toEqual([]);
    await expect(back(before, [lines[0]!.id])).rejects.toThrow('nothing to put back');
  });

  test('a stop that was taken back stood between its days', async () => {
    await pass(1);
    const [line] = (await view(shiftDay(before, 1))).lines;
    expect(line).toMatchObject({ is: 'gone', from: shiftDay(before, 1), until: shiftDay(before, 2) });
    await back(shiftDay(before, 1), [line!.id]);
    await sendDraft();
    expect((await view(shiftDay(before, 1))).lines).toEqual([]);
    await send({ ...movie, kind: 'remove negative' } as Change);
  });

  test('a list that is gone comes back whole, with what it held and where it hung', async () => {
    const listId = newListId('0b6a1f6e-0000-4000-8000-000000000001');
    const { lists, campaigns } = await loadMirror(world.db, world.accountId);
    expect(lists.map(({ name }) => name)).not.toContain('Songs');
    const place = { kind: 'list', id: listId } as const;
    await send(
      { kind: 'make list', listId, name: 'Songs', holds: 'words' },
      { kind: 'add negative', text: 'song', match: 'phrase', place },
      { kind: 'add negative', text: 'lyric', match: 'exact', place },
      { kind: 'hang list', listId, campaignId: campaigns[0]!.id },
    );
    await pass(1);
    const day = shiftDay(before, 3);
    const made = (await view(before)).lines.filter(({ is }) => is === 'new');
    expect(made.map(({ kind }) => kind).sort()).toEqual(['hanging', 'list', 'negative', 'negative']);
    await back(
      before,
      made.map(({ id }) => id),
    );
    await sendDraft();
    await pass(1);
    const gone = (await view(day)).lines;
    expect(gone.map(({ is, what }) => [is, what])).toEqual(
      expect.arrayContaining([
        ['gone', 'the list Songs'],
        ['gone', '“song” (phrase)'],
      ]),
    );
    // Only an entry is wanted: its list is made for it, and hangs nowhere.
    const song = gone.find(({ what }) => what.startsWith('“song”'))!;
    await back(day, [song.id]);
    const kinds = (await viewTray(world.deps, world.slug)).changes.map(({ kind }) => kind);
    expect(kinds).toEqual(['make list', 'add negative']);
    await sendDraft();
    expect((await view(day, { find: 'SONGS', kind: 'list' })).lines.map(({ is }) => is).sort()).toEqual([
      'gone',
      'new',
    ]);
  });

  test('an element that was renamed or deleted in any way is known', async () => {
    await pass(1);
    const day = (await view(before)).today;
    await pass(1);
    const { lists } = await loadMirror(world.db, world.accountId);
    const { id: listId } = lists.find(({ name }) => name === 'Songs')!;
    await send({ kind: 'rename list', listId, name: 'Tunes', was: 'Songs' });
    const [line] = (await view(day, { kind: 'list' })).lines;
    expect(line).toMatchObject({ is: 'renamed', what: 'the list Songs, now Tunes' });
    await back(day, [line!.id]);
    expect((await viewTray(world.deps, world.slug)).changes.map(({ said }) => said).join()).toContain(
      'Songs',
    );
    await world.db('negative').where({ account_id: world.accountId, text: 'song' }).delete();
    expect((await view(day, { find: '“song”' })).lines).toMatchObject([{ is: 'gone', kind: 'negative' }]);
    await refreshMirror(world.deps, world.accountId);
  });
});
