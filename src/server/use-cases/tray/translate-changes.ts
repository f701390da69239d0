import { isNewListId, keyOfNewList, listOf } from '@/core';
import type { PlatformChange } from '@/contracts/platform';
import { findSet } from '../../repositories/tray/change-sets';
import { type StoredChange } from '../../repositories/tray/changes';
import { loadMakers } from '../../repositories/tray/made-lists';
import type { Mirror } from '../../repositories/structure/structure';
import { OutsideTrouble } from '../../outside';
import type { Deps } from '../deps';
import { workOf } from './kinds';

/** Seconds to wait for another tray, whose answer tells the id of a list. */
const WAIT_SECONDS = 2;

/**
 * Changes of a set as the platform is asked for them.
 * @throws OutsideTrouble `not yet` while another tray, which makes a list that they need, has no answer for it
 */
export async function translateChanges(
  deps: Deps,
  accountId: number,
  mirror: Mirror,
  changes: readonly StoredChange[],
): Promise<{ key: string; change: PlatformChange }[]> {
  const newLists = changes.flatMap(({ change }) => {
    const listId = listOf(change);
    return listId !== undefined && isNewListId(listId) ? [keyOfNewList(listId)] : [];
  });
  const makers = await loadMakers(deps.db, accountId, [...new Set(newLists)]);
  await waitForOtherTrays(deps, accountId, changes, [...makers.values()]);
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
  return changes.map(({ key, change }) => {
    const listId = listOf(change);
    const list = listId === undefined ? undefined : platformList(listId);
    return { key, change: workOf(change).translate(change, { ...ids, list }) };
  });
}

/** Trays are sent beside each other, so that a small one does not wait for a large one; but a list is made before it is filled. */
async function waitForOtherTrays(
  deps: Deps,
  accountId: number,
  changes: readonly StoredChange[],
  makers: readonly StoredChange[],
): Promise<void> {
  const setId = changes[0]?.setId;
  const elsewhere = makers.filter((maker) => maker.state === 'drafted' && maker.setId !== setId);
  for (const otherId of new Set(elsewhere.map((maker) => maker.setId))) {
    if ((await findSet(deps.db, accountId, otherId))?.state !== 'sending') continue;
    throw new OutsideTrouble(
      'not yet',
      'It waits for an earlier tray, which makes a list that it needs.',
      WAIT_SECONDS,
    );
  }
}

/** The platform's id of an element by ours; ours where the platform has not named it. */
function platformIdIn(elements: readonly { id: string; platformId: string | null }[]) {
  const byId = new Map(elements.map(({ id, platformId }) => [id, platformId]));
  return (id: string) => byId.get(id) ?? id;
}
