import { randomUUID } from 'node:crypto';
import { listMadeBy, listOf, newListId, type Change } from '@/core';
import type { Db } from '../../db/connection';
import { openDraft } from '../../repositories/tray/change-sets';
import { copyComments } from '../../repositories/tray/comments';
import { insertChanges, loadDraft, type NewChange, type StoredChange } from '../../repositories/tray/changes';

/**
 * Puts changes that failed into the draft once more, as new changes with the reason why they failed; lists among them
 * get new names for their ids. What the draft holds already is left out.
 * @returns how many were put in
 */
export async function draftAgain(
  trx: Db,
  accountId: number,
  failed: readonly StoredChange[],
): Promise<number> {
  if (failed.length === 0) return 0;
  const setId = await openDraft(trx, accountId);
  const drafted = new Set((await loadDraft(trx, accountId)).map((c) => JSON.stringify(c.change)));
  const renamed = new Map<string, string>();
  const again: NewChange[] = [];
  const from: number[] = [];
  for (const stored of failed) {
    const key = randomUUID();
    const made = listMadeBy(stored.change);
    if (made) renamed.set(made.listId, newListId(key));
    const change = withList(stored.change, renamed);
    if (drafted.has(JSON.stringify(change))) continue;
    const { why, forcedBecause, undoes, endsOn, draftedById } = stored;
    const failedBefore = sayFailure(stored);
    from.push(stored.id);
    again.push({
      ...{ key, change, why, forcedBecause, undoes, endsOn, failedBefore },
      draftedBy: draftedById,
    });
  }
  const ids = await insertChanges(trx, accountId, setId, again);
  const pairs = ids.map((to, i) => ({ from: from[i]!, to }));
  await copyComments(trx, accountId, pairs);
  return again.length;
}

/** Why a change failed: the platform's answer, or what was found there. */
export function sayFailure({ answerText, state }: Pick<StoredChange, 'answerText' | 'state'>): string {
  return answerText ?? `read back: ${state}`;
}

function withList(change: Change, renamed: ReadonlyMap<string, string>): Change {
  const listId = renamed.get(listOf(change) ?? '');
  if (listId === undefined) return change;
  if ('place' in change) return { ...change, place: { kind: 'list', id: listId } };
  return 'listId' in change ? { ...change, listId } : change;
}
