import { dependentsOf, listMadeBy, type Change } from '@/core';
import type { DraftOutcome } from '@/contracts/tray';
import type { Db } from '../../db/connection';
import { lockAccount, raiseDraftVersion, type Account } from '../../repositories/account/accounts';
import { openDraft } from '../../repositories/tray/change-sets';
import { deleteDrafted, insertChanges } from '../../repositories/tray/changes';
import { endLookOfEmpty } from '../../repositories/tray/second-looks';
import { deleteHangRulesOf } from '../../repositories/lists/hang-rules';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';
import { knotsGone, nameOfKnot } from '../untangle/knots/still-there';
import { openTray, type Wanted } from './tray-in-memory';

const OTHERWISE: DraftOutcome = {
  outcome: 'refused',
  said: 'Not put in: the account is otherwise by now, and there is nothing to untangle. Look again.',
};

/**
 * Puts changes in the tray, in order. Each is drafted, or cancels its opposite, or is refused or held back with the
 * reason; the others go on. Nothing is sent. What was decided is written at the end, all together.
 */
export async function draftChanges(
  deps: Deps,
  slug: string,
  personId: number,
  wanted: readonly Wanted[],
): Promise<DraftOutcome[]> {
  const asked = await requireAccount(deps, slug);
  const { id } = asked;
  const knots = wanted.flatMap(({ knot }) => knot ?? []);
  const gone = await knotsGone(deps, { account: asked }, knots);
  return deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, id);
    return draftWithin(deps, trx, account, { personId, wanted, gone });
  });
}

type Drafting = {
  personId: number;
  wanted: readonly Wanted[];
  /** names of knots that are not there any more */
  gone?: ReadonlySet<string>;
};

/** Puts changes in the tray of an account that is locked. */
export async function draftWithin(
  deps: Deps,
  trx: Db,
  account: Account,
  { personId, wanted, gone: knotsOtherwise = new Set() }: Drafting,
): Promise<DraftOutcome[]> {
  const { id } = account;
  const setId = await openDraft(trx, id);
  const tray = openTray(await openWorkbench(deps, account, undefined, trx), personId);
  const outcomes = wanted.map((one) =>
    one.knot && knotsOtherwise.has(nameOfKnot(one.knot)) ? OTHERWISE : tray.put(one),
  );
  const cancelled = tray.gone();
  await deleteDrafted(trx, id, cancelled);
  const made = tray.made();
  const ids = await insertChanges(
    trx,
    id,
    setId,
    made.map(({ row }) => row),
  );
  made.forEach(({ outcome }, i) => (outcome.changeId = ids[i]!));
  if (cancelled.length > 0) await endLookOfEmpty(trx, id);
  await raiseDraftVersion(trx, id);
  return outcomes;
}

/**
 * Takes changes out of the tray, with those that need a list, a campaign or an ad group which goes with them.
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
    const wanted = new Set(changeIds);
    const chosen = open.drafted.filter((c) => wanted.has(c.id));
    const lists = new Set(chosen.flatMap(({ change }) => listMadeBy(change)?.listId ?? []));
    const fallen = new Set(
      dependentsOf(
        chosen.map(({ change }) => change),
        open.drafted.map(({ change }) => change),
      ),
    );
    const gone = open.drafted.filter((c) => wanted.has(c.id) || fallen.has(c.change));
    await deleteDrafted(
      trx,
      id,
      gone.map((c) => c.id),
    );
    if (lists.size > 0) await deleteHangRulesOf(trx, id, [...lists]);
    await endLookOfEmpty(trx, id);
    await raiseDraftVersion(trx, id);
    return gone.map((c) => c.change);
  });
}
