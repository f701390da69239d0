import {
  codeKey,
  describeChange,
  isHungOn,
  isNewListId,
  listOf,
  nameKeyword,
  normalise,
  placeKey,
  type Change,
  type MatchType,
  type Names,
  type Place,
} from '@/core';
import type { StructureAnswer } from '@/contracts/platform';
import type { Db } from '../db/connection';
import {
  requireAccountById,
  lockAccount,
  raiseDataVersion,
  requirePlatform,
  setPlatformState,
} from '../repositories/accounts';
import {
  closeSet,
  findSet,
  listSending,
  loadChangesOf,
  renameList,
  updateChange,
  type ChangeState,
  type StoredChange,
} from '../repositories/change-sets';
import { insertOutsideChanges, loadElementStates } from '../repositories/outside-changes';
import { appendLedger } from '../repositories/ledger';
import { renameListInRules } from '../repositories/lists/hang-rules';
import { loadNamesOfGoneLists } from '../repositories/lists/list-versions';
import { loadListStates } from '../repositories/lists/list-states';
import { applyStructure } from '../repositories/apply-structure';
import { loadMirror, type Mirror } from '../repositories/structure';
import type { Deps } from './deps';
import { draftAgain } from './draft-again';
import { findOutside } from './elsewhere/find-outside';
import { keepListVersions, listsTouched } from './lists/keep-versions';

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
    const names = namesOf(mirror, changes, account.currency, await loadNamesOfGoneLists(trx, accountId));
    let failed = 0;
    for (const stored of changes) {
      // What was refused because it is so already is done: a negative that is gone, say.
      const found = postCondition(mirror, stored.change);
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
  const names = namesOf(await loadMirror(trx, accountId), [], currency, gone);
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
  const made = (await loadSent(trx, accountId)).filter((c) => c.change.kind === 'make list' && c.platformId);
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

/** What the read-back finds of a change: there, missing, or something else in its stead. */
export function postCondition(
  mirror: Mirror,
  change: Change,
): Extract<ChangeState, 'there' | 'missing' | 'different'> {
  const found = (is: boolean) => (is ? 'there' : 'missing');
  const list = (id: string) => mirror.lists.find((l) => l.id === id);
  const keyword = (id: string) => mirror.keywords.find((k) => k.id === id);
  switch (change.kind) {
    case 'add negative': {
      if (holds(mirror, change.place, change.text, change.match)) return 'there';
      return holds(mirror, change.place, change.text) ? 'different' : 'missing';
    }
    case 'remove negative':
      return found(!holds(mirror, change.place, change.text, change.match));
    case 'make list':
      return found(list(change.listId) !== undefined);
    case 'remove list':
      return found(list(change.listId) === undefined);
    case 'rename list': {
      const name = list(change.listId)?.name;
      if (name === change.name) return 'there';
      return name === change.was || name === undefined ? 'missing' : 'different';
    }
    case 'hang list':
    case 'take down list':
      return found(
        isHungOn(list(change.listId)?.hungOn, change.campaignId) === (change.kind === 'hang list'),
      );
    case 'add placement':
    case 'remove placement': {
      const isIn = list(change.listId)?.placements.includes(change.address) ?? false;
      return found(isIn === (change.kind === 'add placement'));
    }
    case 'exclude product':
    case 'readmit product': {
      const isThere = mirror.exclusions.some(
        (e) => placeKey(e.place) === placeKey(change.place) && codeKey(e.code) === codeKey(change.code),
      );
      return found(isThere === (change.kind === 'exclude product'));
    }
    case 'set bid': {
      const bid = keyword(change.keywordId)?.bidMicros;
      if (bid === change.bidMicros) return 'there';
      return bid === change.wasMicros ? 'missing' : 'different';
    }
    case 'pause keyword':
      return found(keyword(change.keywordId)?.status === 'paused');
    case 'run keyword':
      return found(keyword(change.keywordId)?.status === 'live');
  }
}

function holds(mirror: Mirror, place: Place, text: string, match?: MatchType): boolean {
  const key = normalise(text);
  return mirror.negatives.some(
    (n) =>
      n.place.kind === place.kind &&
      n.place.id === place.id &&
      (match === undefined || n.match === match) &&
      normalise(n.text) === key,
  );
}

function namesOf(
  mirror: Mirror,
  changes: readonly StoredChange[],
  currency: string,
  gone: ReadonlyMap<string, string>,
): Names {
  const made = new Map(
    changes.flatMap(({ change }) =>
      change.kind === 'make list' ? [[change.listId, change.name] as const] : [],
    ),
  );
  const name = (all: readonly { id: string; name: string }[]) => (id: string) =>
    all.find((e) => e.id === id)?.name;
  return {
    campaign: name(mirror.campaigns),
    adGroup: name(mirror.adGroups),
    list: (id: string) => name(mirror.lists)(id) ?? made.get(id) ?? gone.get(id),
    keyword: (id: string) => nameKeyword(mirror.keywords.find((k) => k.id === id)),
    currency,
  };
}
