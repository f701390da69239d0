import { isNewListId, keyOfNewList, listOf } from '@/core';
import type { PlatformChange } from '@/contracts/platform';
import { findSet, setTrouble } from '../../repositories/tray/change-sets';
import { findMaker, loadChangesOf, updateChange, type StoredChange } from '../../repositories/tray/changes';
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

/** The changes in one request: few enough to show progress, and to send little twice after a crash. */
const BATCH = 50;

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
  for (;;) {
    const set = await findSet(deps.db, accountId, setId);
    if (set?.isStopped) return putRestBack(deps, accountId, set);
    const unanswered = (await loadChangesOf(deps.db, accountId, setId))
      .filter((c) => c.state === 'drafted')
      .slice(0, BATCH);
    if (unanswered.length === 0) return;
    const batch = await translateAll(deps, accountId, mirror, unanswered);
    const answers = await deps.platform.change(requirePlatform(account), batch);
    await deps.db.transaction(async (trx) => {
      for (const answer of answers) {
        const stored = unanswered.find((c) => c.key === answer.key);
        if (!stored) continue;
        await updateChange(
          trx,
          accountId,
          stored.id,
          answer.outcome === 'applied'
            ? { state: 'applied', platformId: answer.id }
            : { state: 'refused', answerCode: answer.code, answerText: answer.text },
          setId,
        );
      }
      await setTrouble(trx, accountId, setId, null);
      await raiseDecisionVersion(trx, accountId); // what was refused is not on its way any more
    });
    if (answers.length === 0)
      throw new PlatformTrouble('no answer', 'The ad platform answered for none of the changes.');
  }
}

async function translateAll(deps: Deps, accountId: number, mirror: Mirror, changes: readonly StoredChange[]) {
  const batch: { key: string; change: PlatformChange }[] = [];
  const ids = {
    campaign: platformIdIn(mirror.campaigns),
    adGroup: platformIdIn(mirror.adGroups),
    keyword: platformIdIn(mirror.keywords),
  };
  for (const { key, change } of changes) {
    const listId = listOf(change);
    const platformList =
      listId === undefined ? undefined : await platformListId(deps, accountId, mirror, listId);
    batch.push({ key, change: workOf(change).translate(change, { ...ids, list: platformList }) });
  }
  return batch;
}

/** A list that the platform has bears its id; one that a change makes is named by that change's key. */
async function platformListId(
  deps: Deps,
  accountId: number,
  mirror: Mirror,
  listId: string,
): Promise<string> {
  if (!isNewListId(listId)) return mirror.lists.find((l) => l.id === listId)?.platformId ?? listId;
  const maker = await findMaker(deps.db, accountId, keyOfNewList(listId));
  return maker?.platformId ?? `key:${keyOfNewList(listId)}`;
}

/** The platform's id of an element by ours; ours where the platform has not named it. */
function platformIdIn(elements: readonly { id: string; platformId: string | null }[]) {
  return (id: string) => elements.find((element) => element.id === id)?.platformId ?? id;
}
