import {
  cancels,
  changeKey,
  checkNegative,
  describeChange,
  isNewListId,
  listOf,
  negativesBroughtBy,
  productCodeTest,
  STANDIN_LIMITS,
  type Change,
} from '@/core';
import type { DraftOutcome } from '@/contracts/tray';
import { few, protectedBy } from '../compute/workbench';
import { lockAccount } from '../repositories/accounts';
import { deleteDrafted, insertChange, openDraft } from '../repositories/change-sets';
import type { Db } from '../db/connection';
import type { Deps } from './deps';
import { openWorkbench, requireAccount, type Open } from './open-workbench';

const UUID = /^[\da-f]{8}(-[\da-f]{4}){3}-[\da-f]{12}$/;

/** A change that a person wants, and why. */
export type Wanted = { change: Change; why?: string | null; forcedBecause?: string; undoes?: number };

/**
 * Puts changes in the tray, in order. Each is drafted, or cancels its opposite, or is refused or held back with the
 * reason; the others go on. Nothing is sent.
 */
export async function draftChanges(
  deps: Deps,
  slug: string,
  personId: number,
  wanted: readonly Wanted[],
): Promise<DraftOutcome[]> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, id);
    const setId = await openDraft(trx, id);
    const outcomes: DraftOutcome[] = [];
    let open = await openWorkbench(deps, account, undefined, trx);
    let inTray = byKey(open);
    for (const one of wanted) {
      const outcome = await draftOne(trx, { open, inTray }, setId, personId, one);
      outcomes.push(outcome);
      if (outcome.outcome === 'cancelled' || one.change.kind === 'make list') {
        open = await openWorkbench(deps, account, undefined, trx);
        inTray = byKey(open);
      } else if (outcome.outcome === 'drafted') {
        open.draft.gate.apply(one.change);
        inTray.set(changeKey(one.change), { id: outcome.changeId, change: one.change });
      }
    }
    return outcomes;
  });
}

/** What is in the tray, by what it is about. */
type InTray = Map<string, { id: number; change: Change }>;

function byKey({ drafted }: Open): InTray {
  return new Map(drafted.map(({ id, change }) => [changeKey(change), { id, change }]));
}

async function draftOne(
  trx: Db,
  { open, inTray }: { open: Open; inTray: InTray },
  setId: number,
  personId: number,
  wanted: Wanted,
): Promise<DraftOutcome> {
  const { change } = wanted;
  const refusal = refuse(open, change);
  if (refusal) return { outcome: 'refused', said: refusal };

  const said = describeChange(change, namesWith(open, change));
  const same = inTray.get(changeKey(change));
  if (same && cancels(same.change, change)) {
    await deleteDrafted(trx, open.account.id, [same.id]);
    return {
      outcome: 'cancelled',
      removed: same.change,
      said: `Taken out of the tray: ${describeChange(same.change, open.names)}.`,
    };
  }
  if (same) return { outcome: 'already there', said: 'This is in the tray already.' };
  const alreadySo = saysNothingNew(open, change);
  if (alreadySo) return { outcome: 'already there', said: alreadySo };

  const hits = protectedBy(open, negativesBroughtBy(change, open.draft.gate));
  if (hits.length > 0 && !wanted.forcedBecause) {
    const what = hits.length === 1 ? 'a protected term' : `${hits.length} protected terms`;
    return {
      outcome: 'held back',
      said: `Held back: it would stop ${what}, ${named(hits)}.`,
      terms: few(hits),
    };
  }
  const changeId = await insertChange(trx, open.account.id, setId, {
    change,
    ...(change.kind === 'make list' && { key: keyOfNewList(change.listId) }),
    why: wanted.why,
    forcedBecause: hits.length > 0 ? wanted.forcedBecause : null,
    undoes: wanted.undoes,
    draftedBy: personId,
  });
  return { outcome: 'drafted', changeId, change, said };
}

/** Why a change can not be asked of the platform at all. */
function refuse({ account, snapshot, names, drafted, onItsWay }: Open, change: Change): string | undefined {
  const knowsList = (id: string) =>
    snapshot.mirror.lists.some((l) => l.id === id) ||
    [...onItsWay, ...drafted].some((c) => c.change.kind === 'make list' && c.change.listId === id);
  switch (change.kind) {
    case 'add negative': {
      const isCode = productCodeTest(account.productCodePattern);
      const refusal = checkNegative(change, STANDIN_LIMITS, isCode);
      if (refusal) return refusal.message;
      const { kind, id } = change.place;
      if (kind === 'campaign' && !snapshot.campaign.has(id!)) return 'This campaign is not there any more.';
      if (kind === 'adGroup' && !snapshot.adGroup.has(id!)) return 'This ad group is not there any more.';
      return kind === 'list' && !knowsList(id!) ? 'This list is not there any more.' : undefined;
    }
    case 'make list': {
      if (!isNewListId(change.listId) || !UUID.test(keyOfNewList(change.listId)))
        return 'A new list needs an id of its own.';
      const taken = [
        ...snapshot.mirror.lists.map((l) => l.name),
        ...drafted.map((c) => (c.change.kind === 'make list' ? c.change.name : '')),
      ];
      return taken.includes(change.name)
        ? `There is a list named ${change.name} already. Choose another name.`
        : undefined;
    }
    case 'hang list':
    case 'take down list':
      if (!knowsList(change.listId)) return 'This list is not there any more.';
      return names.campaign(change.campaignId) === undefined
        ? 'This campaign is not there any more.'
        : undefined;
    case 'remove list':
    case 'remove negative':
      return undefined;
  }
}

/** Why a change would change nothing, against the account as the draft leaves it. */
function saysNothingNew({ draft, names }: Open, change: Change): string | undefined {
  const { gate } = draft;
  switch (change.kind) {
    case 'add negative':
      return gate.holds(change, change.place)
        ? `“${change.text}” (${change.match}) stands there already.`
        : undefined;
    case 'remove negative':
      return gate.holds(change, change.place)
        ? undefined
        : `“${change.text}” (${change.match}) does not stand there.`;
    case 'hang list':
    case 'take down list': {
      const hung = gate.hungOn(change.listId);
      const hangs = hung === 'account' || hung.includes(change.campaignId);
      if (hangs === (change.kind === 'take down list')) return undefined;
      return `${names.list(change.listId)} ${hangs ? 'hangs there already' : 'does not hang there'}.`;
    }
    case 'make list':
    case 'remove list':
      return undefined;
  }
}

function namesWith(open: Open, change: Change) {
  const own = change.kind === 'make list' ? new Map([[change.listId, change.name]]) : undefined;
  return { ...open.names, list: (id: string) => own?.get(id) ?? open.names.list(id) };
}

/** A list's id while it is in the tray carries the key of the change that makes it. */
export function keyOfNewList(listId: string): string {
  return listId.slice('new:'.length);
}

function named(texts: readonly string[]): string {
  const some = texts
    .slice(0, 3)
    .map((text) => `“${text}”`)
    .join(', ');
  return texts.length > 3 ? `${some} and ${texts.length - 3} more` : some;
}

/**
 * Takes changes out of the tray, with those that need a list which goes with them.
 * @returns the changes that were taken out, so that they can be put back
 */
export async function removeFromTray(
  deps: Deps,
  slug: string,
  changeIds: readonly number[],
): Promise<Change[]> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, id);
    const open = await openWorkbench(deps, account, undefined, trx);
    const chosen = open.drafted.filter((c) => changeIds.includes(c.id));
    const lists = new Set(
      chosen.flatMap(({ change }) => (change.kind === 'make list' ? [change.listId] : [])),
    );
    const gone = open.drafted.filter((c) => chosen.includes(c) || lists.has(listOf(c.change) ?? ''));
    await deleteDrafted(
      trx,
      id,
      gone.map((c) => c.id),
    );
    return gone.map((c) => c.change);
  });
}
