import { isNewListId, keyOfNewList, listOf } from '@/core';
import type { PlatformChange } from '@/contracts/platform';
import { findSet, setTrouble } from '../../repositories/tray/change-sets';
import {
  loadMakers,
  loadUnanswered,
  updateChanges,
  type ChangeUpdate,
  type StoredChange,
} from '../../repositories/tray/changes';
import {
  raiseDecisionVersion,
  requireAccountById,
  requirePlatform,
} from '../../repositories/account/accounts';
import { loadMirror, type Mirror } from '../../repositories/structure/structure';
import { PlatformTrouble } from '../../platform/platform';
import type { Deps } from '../deps';
import { workOf } from './kinds';
import { readBack } from './read-back';
import { putRestBack } from './stop-sending';

/**
 * The changes in one request: few at first, so that progress is seen soon and a mistake can be stopped, then more, so that a
 * large tray takes few requests.
 */
const FIRST_BATCH = 50;
const MOST_IN_BATCH = 500;

/**
 * Sends what of a set has no answer yet, in batches, then reads back and closes it. May be called again at any time,
 * after a fall too: what was answered is not sent again, and what was sent without an answer carries the same key.
 * @throws PlatformTrouble when the platform does not answer; the set says so and stays on its way
 */
export async function workOnSet(deps: Deps, accountId: number, setId: number): Promise<void> {
  const set = await findSet(deps.db, accountId, setId);
  if (set?.state !== 'sending') return; // closed by another process
  try {
    await sendUnanswered(deps, accountId, setId);
    await readBack(deps, accountId, setId);
  } catch (error) {
    if (!(error instanceof PlatformTrouble)) throw error;
    await setTrouble(
      deps.db,
      accountId,
      setId,
      `${error.message} Nothing is lost: the changes wait here and are sent again.`,
    );
    throw error;
  }
}

async function sendUnanswered(deps: Deps, accountId: number, setId: number): Promise<void> {
  const account = await requireAccountById(deps.db, accountId);
  const mirror = await loadMirror(deps.db, accountId);
  for (let most = FIRST_BATCH; ; most = Math.min(2 * most, MOST_IN_BATCH)) {
    const set = await findSet(deps.db, accountId, setId);
    if (set?.isStopped) return putRestBack(deps, accountId, set);
    const unanswered = await loadUnanswered(deps.db, accountId, setId, most);
    if (unanswered.length === 0) return;
    const batch = await translateAll(deps, accountId, mirror, unanswered);
    const answers = await deps.platform.change(requirePlatform(account), batch);
    const idOf = new Map(unanswered.map(({ key, id }) => [key, id]));
    const updates = answers.flatMap((answer): ChangeUpdate[] => {
      const id = idOf.get(answer.key);
      if (id === undefined) return [];
      return answer.outcome === 'applied'
        ? [{ id, state: 'applied', platformId: answer.id }]
        : [{ id, state: 'refused', answerCode: answer.code, answerText: answer.text }];
    });
    await deps.db.transaction(async (trx) => {
      await updateChanges(trx, accountId, setId, updates);
      await setTrouble(trx, accountId, setId, null);
      await raiseDecisionVersion(trx, accountId); // what was refused is not on its way any more
    });
    if (answers.length === 0)
      throw new PlatformTrouble('no answer', 'The ad platform answered for none of the changes.');
  }
}

async function translateAll(deps: Deps, accountId: number, mirror: Mirror, changes: readonly StoredChange[]) {
  const newLists = changes.flatMap(({ change }) => {
    const listId = listOf(change);
    return listId !== undefined && isNewListId(listId) ? [keyOfNewList(listId)] : [];
  });
  const makers = await loadMakers(deps.db, accountId, [...new Set(newLists)]);
  const ids = {
    campaign: platformIdIn(mirror.campaigns),
    adGroup: platformIdIn(mirror.adGroups),
    keyword: platformIdIn(mirror.keywords),
  };
  const listIn = platformIdIn(mirror.lists);
  /** A list that the platform has bears its id; one that a change makes is named by that change's key. */
  const platformList = (listId: string) => {
    if (!isNewListId(listId)) return listIn(listId);
    const key = keyOfNewList(listId);
    return makers.get(key)?.platformId ?? `key:${key}`;
  };
  return changes.map(({ key, change }): { key: string; change: PlatformChange } => {
    const listId = listOf(change);
    const list = listId === undefined ? undefined : platformList(listId);
    return { key, change: workOf(change).translate(change, { ...ids, list }) };
  });
}

/** The platform's id of an element by ours; ours where the platform has not named it. */
function platformIdIn(elements: readonly { id: string; platformId: string | null }[]) {
  const byId = new Map(elements.map(({ id, platformId }) => [id, platformId]));
  return (id: string) => byId.get(id) ?? id;
}
