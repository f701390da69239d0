import { describeChange, isNewListId, listMadeBy, listOf, type Change } from '@/core';
import type { StructureAnswer } from '@/contracts/platform';
import type { Db } from '../../db/connection';
import {
  requireAccountById,
  lockAccount,
  raiseDataVersion,
  requirePlatform,
  setPlatformState,
} from '../../repositories/account/accounts';
import { closeSet, findSet, listSending } from '../../repositories/tray/change-sets';
import { loadChangesOf, renameList, updateChange, type StoredChange } from '../../repositories/tray/changes';
import { insertOutsideChanges, loadElementStates } from '../../repositories/structure/outside-changes';
import { appendLedger } from '../../repositories/ledger';
import { renameListInRules } from '../../repositories/lists/hang-rules';
import { loadNamesOfGoneLists } from '../../repositories/lists/list-versions';
import { loadListStates } from '../../repositories/lists/list-states';
import { applyStructure } from '../../repositories/structure/apply-structure';
import { loadMirror } from '../../repositories/structure/structure';
import type { Deps } from '../deps';
import { draftAgain } from './draft-again';
import { findOutside } from './elsewhere/find-outside';
import { workOf } from './kinds';
import { keepListVersions, listsTouched } from '../lists/keep-versions';
import { namesInMirror } from '../names';

/**
 * Brings the mirror up to the platform and compares each sent change of a set with what is there now. What was
 * refused is drafted again, with the reason. One transaction: after a fall it is as if it had not begun.
 */
export async function readBack(deps: Deps, accountId: number, setId: number): Promise<void> {
  const account = await requireAccountById(deps.db, accountId);
  const answer = await deps.platform.structure(requirePlatform(account), account.structureRevision);
  await deps.db.transaction(async (trx) => {
    await lockAccount(trx, accountId);
    const set = await findSet(trx, accountId, setId);
    if (set?.state !== 'sending') return;
    await takeOver(trx, accountId, answer);
    const mirror = await loadMirror(trx, accountId);
    const changes = await loadChangesOf(trx, accountId, setId);
    const names = namesInMirror(
      mirror,
      changes.map(({ change }) => change),
      account.currency,
      await loadNamesOfGoneLists(trx, accountId),
    );
    let failed = 0;
    for (const stored of changes) {
      // What was refused because it is so already is done: a negative that is gone, say.
      const found = workOf(stored.change).find(stored.change, mirror);
      const state = stored.state === 'refused' && found !== 'there' ? 'refused' : found;
      if (state !== 'refused') stored.state = state;
      if (state !== 'there') failed += 1;
      await updateChange(trx, accountId, stored.id, { state });
      await appendLedger(trx, accountId, {
        actor: { person: stored.draftedById },
        about: 'change',
        what: describeChange(stored.change, names),
        why:
          [stored.why, stored.forcedBecause && `forced: ${stored.forcedBecause}`]
            .filter(Boolean)
            .join('; ') || null,
        before: stored.before,
        after: { state, answer: stored.answerText },
        changeId: stored.id,
      });
    }
    const refused = changes.filter((c) => c.state === 'refused');
    await draftAgain(trx, accountId, refused);
    await closeSet(trx, accountId, setId, failed > 0 ? 'partly failed' : 'confirmed');
  });
}

/** Brings the mirror up to the platform without comparing anything. */
export async function refreshMirror(deps: Deps, accountId: number): Promise<StructureAnswer> {
  const account = await requireAccountById(deps.db, accountId);
  const answer = await deps.platform.structure(requirePlatform(account), account.structureRevision);
  await deps.db.transaction(async (trx) => {
    await lockAccount(trx, accountId);
    await takeOver(trx, accountId, answer);
  });
  return answer;
}

async function takeOver(trx: Db, accountId: number, answer: StructureAnswer): Promise<void> {
  const { structureRevision } = await requireAccountById(trx, accountId);
  const touched = listsTouched(answer);
  const before = await loadListStates(trx, accountId, touched);
  const elements = await loadElementStates(trx, accountId, answer);
  await applyStructure(trx, accountId, answer);
  await setPlatformState(trx, accountId, answer);
  await raiseDataVersion(trx, accountId);
  await adoptMadeLists(trx, accountId);
  // What was there when the account was first read has no history.
  if (structureRevision === 0) return;
  const ours = await loadSent(trx, accountId);
  if (touched.length > 0) await keepListVersions(trx, accountId, touched, before, ours);
  const after = await loadElementStates(trx, accountId, answer);
  await keepOutsideChanges(trx, accountId, findOutside(answer, elements, after, ours));
}

const MOST_NAMED = 3;

/** What others changed outside lists waits to be looked at, and stands in the ledger. */
async function keepOutsideChanges(trx: Db, accountId: number, changes: readonly Change[]): Promise<void> {
  if (changes.length === 0) return;
  const { currency } = await requireAccountById(trx, accountId);
  const gone = await loadNamesOfGoneLists(trx, accountId);
  const names = namesInMirror(await loadMirror(trx, accountId), [], currency, gone);
  const found = changes.map((change) => ({ change, said: describeChange(change, names) }));
  await insertOutsideChanges(trx, accountId, found);
  const some = found.slice(0, MOST_NAMED).map(({ said }) => said);
  const more = found.length > MOST_NAMED ? `, and ${found.length - MOST_NAMED} more` : '';
  await appendLedger(trx, accountId, {
    ...{ actor: 'read-back', about: 'change' },
    what: `Somebody else changed on the platform: ${some.join('; ')}${more}`,
    after: changes,
  });
}

/** Changes that are on their way to the platform, or there and not read back. */
async function loadSent(trx: Db, accountId: number): Promise<StoredChange[]> {
  const sent: StoredChange[] = [];
  for (const { id } of await listSending(trx, accountId))
    sent.push(...(await loadChangesOf(trx, accountId, id)));
  return sent;
}

/** A list that was made bears its own id from now on, in sent changes, in the tray and in rules alike. */
async function adoptMadeLists(trx: Db, accountId: number): Promise<void> {
  const made = (await loadSent(trx, accountId)).filter((c) => listMadeBy(c.change) && c.platformId);
  if (made.length === 0) return;
  const { lists } = await loadMirror(trx, accountId);
  for (const stored of made) {
    const list = lists.find((l) => l.platformId === stored.platformId);
    const listId = listOf(stored.change)!;
    if (!list || !isNewListId(listId)) continue;
    await renameList(trx, accountId, listId, list.id);
    await renameListInRules(trx, accountId, listId, list.id);
  }
}
