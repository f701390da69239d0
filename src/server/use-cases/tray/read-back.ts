import { group } from 'd3';
import { describeChange, isNewListId, listMadeBy, listOf } from '@/core';
import type { StructureAnswer } from '@/contracts/platform';
import type { Db } from '../../db/connection';
import {
  requireAccountById,
  lockAccount,
  raiseDataVersion,
  requirePlatform,
  setPlatformState,
} from '../../repositories/account/accounts';
import { closeSet, findSet } from '../../repositories/tray/change-sets';
import {
  loadChangesOf,
  loadUnderway,
  updateChanges,
  type StoredChange,
} from '../../repositories/tray/changes';
import { renameLists } from '../../repositories/tray/made-lists';
import { insertOutsideChanges, loadElementStates } from '../../repositories/structure/outside-changes';
import { appendAllToLedger } from '../../repositories/ledger';
import { renameListsInRules } from '../../repositories/lists/hang-rules';
import { loadNamesOfGoneLists } from '../../repositories/lists/list-versions';
import { loadListStates } from '../../repositories/lists/list-states';
import { applyStructure } from '../../repositories/structure/apply-structure';
import { loadMirror } from '../../repositories/structure/structure';
import { OutsideTrouble } from '../../outside';
import type { Deps } from '../deps';
import { draftAgain } from './draft-again';
import { findOutside } from './elsewhere/find-outside';
import { workOf } from './kinds';
import { tellOf } from './tell-ledger';
import { keepListVersions, listsTouched } from '../lists/keep-versions';
import { namesInMirror } from '../names';

/**
 * Brings the mirror up to the platform and compares each sent change of a set with what is there now. What was
 * refused is drafted again, with the reason. One transaction: after a fall it is as if it had not begun.
 * @throws OutsideTrouble `not yet` while the platform shows the account as it was before the changes
 */
export async function readBack(deps: Deps, accountId: number, setId: number): Promise<void> {
  const account = await requireAccountById(deps.db, accountId);
  const answer = await deps.platform.structure(requirePlatform(account), account.structureRevision);
  await deps.db.transaction(async (trx) => {
    const { structureRevision } = await lockAccount(trx, accountId);
    const set = await findSet(trx, accountId, setId);
    if (set?.state !== 'sending') return;
    if (answer.revision < Math.max(structureRevision, set.platformRevision ?? 0)) throw showsOldData();
    await takeOver(deps, trx, accountId, answer);
    const mirror = await loadMirror(trx, accountId);
    const changes = await loadChangesOf(trx, accountId, setId);
    const names = namesInMirror(
      mirror,
      changes.map(({ change }) => change),
      account.currency,
      await loadNamesOfGoneLists(trx, accountId),
    );
    const read = changes.map((stored): StoredChange => {
      const found = workOf(stored.change).find(stored.change, mirror);
      // What was refused because it is so already is done: a negative that is gone, say.
      const isRefused = stored.state === 'refused' && found !== 'there';
      return { ...stored, state: isRefused ? 'refused' : found };
    });
    await updateChanges(
      trx,
      accountId,
      setId,
      read.map(({ id, state }) => ({ id, state })),
    );
    await appendAllToLedger(
      trx,
      accountId,
      read.map((stored) => ({
        ...tellOf(stored, names),
        actor: set.ruleId === null ? { person: stored.draftedById } : { rule: set.ruleId },
        after: { state: stored.state, answer: stored.answerText },
      })),
    );
    await draftAgain(
      trx,
      accountId,
      read.filter(({ state }) => state === 'refused'),
    );
    const isWhole = read.every(({ state }) => state === 'there');
    await closeSet(trx, accountId, setId, isWhole ? 'confirmed' : 'partly failed');
    if (!isWhole) await deps.enqueue(trx, { name: 'raise-alerts', accountId });
  });
}

/** Seconds after which a platform that shows old data is asked again. */
const OLD_FOR_SECONDS = 10;

const showsOldData = () =>
  new OutsideTrouble(
    'not yet',
    'The ad platform took the changes, and still shows the account as it was before.',
    OLD_FOR_SECONDS,
  );

/** Brings the mirror up to the platform without comparing anything. */
export async function refreshMirror(deps: Deps, accountId: number): Promise<StructureAnswer> {
  const account = await requireAccountById(deps.db, accountId);
  const answer = await deps.platform.structure(requirePlatform(account), account.structureRevision);
  await deps.db.transaction(async (trx) => {
    const { structureRevision } = await lockAccount(trx, accountId);
    if (answer.revision >= structureRevision) await takeOver(deps, trx, accountId, answer);
  });
  return answer;
}

async function takeOver(deps: Deps, trx: Db, accountId: number, answer: StructureAnswer): Promise<void> {
  const { structureRevision } = await requireAccountById(trx, accountId);
  const touched = listsTouched(answer);
  const before = await loadListStates(trx, accountId, touched);
  const elements = await loadElementStates(trx, accountId, answer);
  await setPlatformState(trx, accountId, { today: answer.today }); // the day on which elements come and go
  await applyStructure(trx, accountId, answer);
  await setPlatformState(trx, accountId, answer);
  await raiseDataVersion(trx, accountId);
  await adoptMadeLists(trx, accountId);
  // What was there when the account was first read has no history.
  if (structureRevision === 0) return;
  const ours = await loadSent(trx, accountId);
  if (touched.length > 0) await keepListVersions(trx, accountId, answer, before, ours);
  const after = await loadElementStates(trx, accountId, answer);
  const outside = findOutside(answer, elements, after, ours);
  await keepOutsideChanges(trx, accountId, outside);
  if (outside.length > 0) await deps.enqueue(trx, { name: 'raise-alerts', accountId });
}

const MOST_NAMED = 3;

/** What others changed outside lists waits to be looked at, and stands in the ledger. */
async function keepOutsideChanges(
  trx: Db,
  accountId: number,
  changes: ReturnType<typeof findOutside>,
): Promise<void> {
  if (changes.length === 0) return;
  const { currency } = await requireAccountById(trx, accountId);
  const gone = await loadNamesOfGoneLists(trx, accountId);
  const names = namesInMirror(await loadMirror(trx, accountId), [], currency, gone);
  const found = changes.map((one) => ({ ...one, said: describeChange(one.change, names) }));
  await insertOutsideChanges(trx, accountId, found);
  const byAuthor = group(found, ({ by }) => by);
  await appendAllToLedger(
    trx,
    accountId,
    [...byAuthor].map(([by, of]) => ({
      ...{ actor: 'read-back', about: 'change', after: of.map(({ change }) => change) },
      what: `${by ?? 'Somebody else'} changed on the platform: ${sayFirst(of.map(({ said }) => said))}`,
    })),
  );
}

function sayFirst(said: readonly string[]): string {
  const more = said.length > MOST_NAMED ? `, and ${said.length - MOST_NAMED} more` : '';
  return said.slice(0, MOST_NAMED).join('; ') + more;
}

/** Changes that are on their way to the platform, or there and not read back. */
async function loadSent(trx: Db, accountId: number): Promise<StoredChange[]> {
  return (await loadUnderway(trx, accountId)).filter(({ setState }) => setState === 'sending');
}

/** A list that was made bears its own id from now on, in sent changes, in the tray and in rules alike. */
async function adoptMadeLists(trx: Db, accountId: number): Promise<void> {
  const made = (await loadSent(trx, accountId)).filter((c) => listMadeBy(c.change) && c.platformId);
  if (made.length === 0) return;
  const { lists } = await loadMirror(trx, accountId);
  const byPlatformId = new Map(lists.map((list) => [list.platformId, list.id]));
  const adopted = new Map(
    made.flatMap(({ change, platformId }) => {
      const [newId, listId] = [listOf(change)!, byPlatformId.get(platformId!)];
      return listId !== undefined && isNewListId(newId) ? [[newId, listId] as const] : [];
    }),
  );
  await renameLists(trx, accountId, adopted);
  await renameListsInRules(trx, accountId, adopted);
}
