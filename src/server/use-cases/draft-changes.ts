import {
  cancels,
  changeKey,
  checkNegative,
  describeChange,
  isNewListId,
  listOf,
  nameKeyword,
  negativesBroughtBy,
  productCodeTest,
  STANDIN_LIMITS,
  type Change,
} from '@/core';
import type { DraftOutcome } from '@/contracts/tray';
import { few, protectedBy } from '../compute/workbench';
import { lockAccount, raiseDecisionVersion } from '../repositories/accounts';
import { deleteDrafted, insertChanges, openDraft, type NewChange } from '../repositories/change-sets';
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
    /** decided to be drafted and not written yet, each with the outcome that waits for its id */
    let waiting: { outcome: Drafted; drafted: NewChange }[] = [];
    const writeDown = async () => {
      const ids = await insertChanges(
        trx,
        id,
        setId,
        waiting.map((one) => one.drafted),
      );
      waiting.forEach(({ outcome }, i) => (outcome.changeId = ids[i]!));
      waiting = [];
    };
    let open = await openWorkbench(deps, account, undefined, trx);
    let inTray = byKey(open);
    for (const one of wanted) {
      const decided = decideOne({ open, inTray }, personId, one);
      outcomes.push(decided.outcome);
      if (decided.outcome.outcome === 'drafted') {
        waiting.push({ outcome: decided.outcome, drafted: decided.drafted! });
        open.draft.gate.apply(one.change);
        inTray.set(changeKey(one.change), { outcome: decided.outcome, change: one.change });
      }
      const isCancelled = decided.outcome.outcome === 'cancelled';
      if (!isCancelled && one.change.kind !== 'make list') continue;
      await writeDown();
      if (isCancelled) await deleteDrafted(trx, id, [idOf(decided.cancels!)]);
      open = await openWorkbench(deps, account, undefined, trx);
      inTray = byKey(open);
    }
    await writeDown();
    await raiseDecisionVersion(trx, id);
    return outcomes;
  });
}

type Drafted = Extract<DraftOutcome, { outcome: 'drafted' }>;

/** What is in the tray, by what it is about: stored, or decided just now and about to be. */
type InTray = Map<string, Standing>;
type Standing = { change: Change } & ({ id: number; by: string } | { outcome: Drafted });

const idOf = (standing: Standing) => ('id' in standing ? standing.id : standing.outcome.changeId);

function byKey({ drafted }: Open): InTray {
  return new Map(drafted.map(({ id, change, draftedBy: by }) => [changeKey(change), { id, change, by }]));
}

type Decided = { outcome: DraftOutcome; drafted?: NewChange; cancels?: Standing };

function decideOne(
  { open, inTray }: { open: Open; inTray: InTray },
  personId: number,
  wanted: Wanted,
): Decided {
  const { change } = wanted;
  const refusal = refuse(open, change);
  if (refusal) return { outcome: { outcome: 'refused', said: refusal } };

  const said = describeChange(change, namesWith(open, change));
  const same = inTray.get(changeKey(change));
  if (same && cancels(same.change, change)) {
    const was = describeChange(same.change, open.names);
    return {
      outcome: { outcome: 'cancelled', removed: same.change, said: `Taken out of the tray: ${was}.` },
      cancels: same,
    };
  }
  if (same) {
    const what = change.kind === 'set bid' ? 'A bid for this keyword' : 'This';
    const by = 'by' in same ? `, put in by ${same.by}` : '';
    return { outcome: { outcome: 'already there', said: `${what} is in the tray already${by}.` } };
  }
  const alreadySo = saysNothingNew(open, change);
  if (alreadySo) return { outcome: { outcome: 'already there', said: alreadySo } };

  const hits = protectedBy(open, negativesBroughtBy(change, open.draft.gate));
  if (hits.length > 0 && !wanted.forcedBecause) {
    const what = hits.length === 1 ? 'a protected term' : `${hits.length} protected terms`;
    return {
      outcome: {
        outcome: 'held back',
        said: `Held back: it would stop ${what}, ${named(hits)}.`,
        terms: few(hits),
      },
    };
  }
  return {
    outcome: { outcome: 'drafted', changeId: 0, change, said },
    drafted: {
      change,
      ...(change.kind === 'make list' && { key: keyOfNewList(change.listId) }),
      why: wanted.why,
      forcedBecause: hits.length > 0 ? wanted.forcedBecause : null,
      undoes: wanted.undoes,
      draftedBy: personId,
    },
  };
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
    case 'readmit product':
      return undefined;
    case 'exclude product': {
      const isCode = productCodeTest(account.productCodePattern);
      if (!isCode(change.code)) return `“${change.code}” is no product code of this account.`;
      const { kind, id } = change.place;
      if (kind === 'campaign' && snapshot.campaign.has(id!)) return undefined;
      return kind === 'adGroup' && snapshot.adGroup.has(id!)
        ? undefined
        : 'A product is excluded in a campaign or an ad group, and this one is not there.';
    }
    case 'set bid': {
      const keyword = snapshot.keyword.get(change.keywordId);
      if (!keyword) return 'This keyword is not there any more.';
      return keyword.bidMicros === change.wasMicros
        ? undefined
        : `The bid of ${nameKeyword(keyword)} has changed meanwhile. Nothing was changed: look again.`;
    }
    case 'pause keyword':
    case 'run keyword':
      return snapshot.keyword.has(change.keywordId) ? undefined : 'This keyword is not there any more.';
  }
}

/** Why a change would change nothing, against the account as the draft leaves it. */
function saysNothingNew({ draft, names, snapshot }: Open, change: Change): string | undefined {
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
    case 'exclude product':
    case 'readmit product':
      return gate.excludes(change.code, change.place) === (change.kind === 'exclude product')
        ? `${change.code} is ${change.kind === 'exclude product' ? 'excluded there already' : 'not excluded there'}.`
        : undefined;
    case 'set bid':
      return change.bidMicros === change.wasMicros ? 'This is the bid already.' : undefined;
    case 'pause keyword':
    case 'run keyword': {
      const wanted = change.kind === 'pause keyword' ? 'paused' : 'live';
      const { status } = snapshot.keyword.get(change.keywordId)!;
      return status === wanted ? `${names.keyword?.(change.keywordId)} is ${status} already.` : undefined;
    }
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
    await raiseDecisionVersion(trx, id);
    return gone.map((c) => c.change);
  });
}
