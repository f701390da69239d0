import { isNewListId, listOf, type Change } from '@/core';
import type { PlatformChange } from '@/contracts/platform';
import {
  findMaker,
  findSet,
  loadChangesOf,
  setTrouble,
  updateChange,
  type StoredChange,
} from '../repositories/change-sets';
import { raiseDecisionVersion, requireAccountById, requirePlatform } from '../repositories/accounts';
import { loadMirror, type Mirror } from '../repositories/structure';
import { PlatformTrouble } from '../platform/platform';
import type { Deps } from './deps';
import { keyOfNewList } from './refuse-change';
import { readBack } from './read-back';

/** Small enough that progress is seen and little is sent twice after a fall. */
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
  for (const { key, change } of changes) {
    const listId = listOf(change);
    const platformList =
      listId === undefined ? undefined : await platformListId(deps, accountId, mirror, listId);
    batch.push({ key, change: translate(change, mirror, platformList) });
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

/** A change in the platform's ids. */
function translate(change: Change, mirror: Mirror, platformList: string | undefined): PlatformChange {
  const campaign = (id: string) => mirror.campaigns.find((c) => c.id === id)?.platformId ?? id;
  const adGroup = (id: string) => mirror.adGroups.find((g) => g.id === id)?.platformId ?? id;
  const keyword = (id: string) => mirror.keywords.find((k) => k.id === id)?.platformId ?? id;
  switch (change.kind) {
    case 'add negative':
    case 'remove negative': {
      const { kind, text, match, place } = change;
      if (place.kind === 'account') return { kind, text, match, place: { kind: 'account', id: null } };
      const id =
        place.kind === 'list'
          ? platformList!
          : place.kind === 'campaign'
            ? campaign(place.id!)
            : adGroup(place.id!);
      return { kind, text, match, place: { kind: place.kind, id } };
    }
    case 'make list':
      return { kind: change.kind, name: change.name, holds: change.holds ?? 'words' };
    case 'rename list':
      return { kind: change.kind, listId: platformList!, name: change.name };
    case 'add placement':
    case 'remove placement':
      return { kind: change.kind, address: change.address, listId: platformList! };
    case 'remove list':
      return { kind: change.kind, listId: platformList! };
    case 'hang list':
    case 'take down list':
      return {
        kind: change.kind,
        listId: platformList!,
        campaignId: change.campaignId === null ? null : campaign(change.campaignId),
      };
    case 'exclude product':
    case 'readmit product': {
      const { kind, code, place } = change;
      return place.kind === 'campaign'
        ? { kind, code, place: { kind: 'campaign', id: campaign(place.id!) } }
        : { kind, code, place: { kind: 'adGroup', id: adGroup(place.id!) } };
    }
    case 'set bid':
      return { kind: change.kind, keywordId: keyword(change.keywordId), bidMicros: change.bidMicros };
    case 'pause keyword':
    case 'run keyword':
      return { kind: change.kind, keywordId: keyword(change.keywordId) };
  }
}
