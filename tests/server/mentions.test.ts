import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Change } from '@/core';
import { addMember, setRole } from '@/server/use-cases/account/people';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { givePass, seeMention, takePassBack, viewMentions } from '@/server/use-cases/mentions/mentions';
import { removeNote, viewNotes, writeNote } from '@/server/use-cases/sift/remember';
import { commentOnChange, removeComment } from '@/server/use-cases/tray/comment';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { viewLists } from '@/server/use-cases/lists/view-lists';
import { makeWorld, type World } from '../support/world';

const [MAREN, TOBIAS] = [1, 2];
let world: World;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

const told = async (person: number) => (await viewMentions(world.deps, world.slug, person)).lines;
const note = (body: string, by = MAREN) =>
  writeNote(world.deps, world.slug, by, { kind: 'term', about: 'bee movie', body });
const newest = async () => (await viewLedger(world.deps, world.slug, {})).lines[0]!.what;

test('who is named in a note is told, with what it is about, until it is seen', async () => {
  await note('@Tobias, is this a film?');
  expect(await told(MAREN)).toEqual([]);
  const [line] = await told(TOBIAS);
  expect(line).toMatchObject({
    ...{ by: 'Maren Oakes', kind: 'term', about: 'bee movie', label: '“bee movie”', isSeen: false },
    body: '@Tobias, is this a film?',
  });
  await seeMention(world.deps, world.slug, TOBIAS, { id: line!.id, isSeen: true });
  expect(await told(TOBIAS)).toMatchObject([{ isSeen: true }]);
  await seeMention(world.deps, world.slug, TOBIAS, { id: line!.id, isSeen: false });
  expect(await told(TOBIAS)).toMatchObject([{ isSeen: false }]);
  await expect(seeMention(world.deps, world.slug, MAREN, { id: line!.id, isSeen: true })).rejects.toThrow(
    'not there any more',
  );
});

test('nobody is told by oneself, twice by the same note, or who is here no longer', async () => {
  await note('@Maren think again');
  await note('@Tobias look');
  await note('@Tobias look');
  expect([await told(MAREN), (await told(TOBIAS)).length]).toEqual([[], 1]);
  await setRole(world.deps, world.slug, MAREN, { person: TOBIAS, role: 'none' });
  await note('@Tobias look again');
  expect(await told(TOBIAS)).toHaveLength(1);
});

test('a note that is removed tells nobody any more', async () => {
  const { noteId } = await note('@Tobias look');
  await removeNote(world.deps, world.slug, MAREN, noteId);
  expect(await told(TOBIAS)).toEqual([]);
});

test('a comment on a change tells too', async () => {
  const change: Change = {
    kind: 'add negative',
    text: 'salary',
    match: 'exact',
    place: { kind: 'account', id: null },
  };
  const [drafted] = await draftChanges(world.deps, world.slug, MAREN, [{ change }]);
  if (drafted!.outcome !== 'drafted') throw new Error('it must be drafted');
  const comment = (text: string) => commentOnChange(world.deps, world.slug, TOBIAS, drafted!.changeId, text);
  const { id } = await comment('@maren oakes not the jobs list?');
  expect(await told(MAREN)).toMatchObject([
    { kind: 'change', about: String(drafted!.changeId), label: 'a change in the tray' },
  ]);
  await removeComment(world.deps, world.slug, TOBIAS, id);
  expect(await told(MAREN)).toEqual([]);
});

test('a list has notes, which name it in the ledger', async () => {
  const { lists } = await viewLists(world.deps, world.slug);
  const list = lists[0]!;
  const about = { kind: 'list', about: list.id } as const;
  const { noteId } = await writeNote(world.deps, world.slug, MAREN, { ...about, body: '@Tobias grow it' });
  expect(await newest()).toBe(`Note on the list ${list.name}: @Tobias grow it`);
  expect((await viewNotes(world.deps, world.slug, about)).notes).toHaveLength(1);
  expect(await told(TOBIAS)).toMatchObject([
    { kind: 'list', about: list.id, label: `the list ${list.name}` },
  ]);
  await removeNote(world.deps, world.slug, MAREN, noteId);
  expect(await newest()).toBe(`Remove the note on the list ${list.name}: @Tobias grow it`);
});

test('the rest of a pass is given to one who may decide, and taken back', async () => {
  const give = (to: number) => givePass(world.deps, world.slug, MAREN, to);
  const { id: petra } = await addMember(world.deps, world.slug, MAREN, { name: 'Petra Holm', role: 'look' });
  await expect(give(petra)).rejects.toThrow('may not decide here');
  await expect(give(999)).rejects.toThrow('may not decide here');
  const { id } = await give(TOBIAS);
  expect(await newest()).toBe('Give the rest of the pass to Tobias Finch');
  expect(await viewMentions(world.deps, world.slug, TOBIAS)).toMatchObject({
    lines: [{ kind: 'pass', body: 'The rest of this pass is yours.' }],
    pass: { to: 'Tobias Finch', isMine: true, by: 'Maren Oakes' },
  });
  expect((await viewMentions(world.deps, world.slug, MAREN)).pass).toMatchObject({ isMine: false });
  await takePassBack(world.deps, world.slug, MAREN, id);
  await expect(takePassBack(world.deps, world.slug, MAREN, id)).rejects.toThrow('taken back already');
  expect(await viewMentions(world.deps, world.slug, TOBIAS)).toEqual({ lines: [], pass: null });
});

test('the next pass is nobody’s yet', async () => {
  await givePass(world.deps, world.slug, MAREN, TOBIAS);
  await world.db.raw(
    'insert into pass (account_id, newest_term_id) select account_id, newest_term_id from pass limit 1',
  );
  expect((await viewMentions(world.deps, world.slug, MAREN)).pass).toBeNull();
});
