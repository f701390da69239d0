import {
  changeKey,
  describeChange,
  describePlace,
  listOf,
  negativesBroughtBy,
  roomAfter,
  rowsActedOn,
  type Change,
} from '@/core';
import type { Weight } from '@/contracts/common';
import { sayCouldDrop } from '@/contracts/tray';
import { few, protectedBy, weighRows } from '../../compute/workbench';
import { lockAccount, raiseDecisionVersion } from '../../repositories/account/accounts';
import { findSet, freezeDraft, openDraft, setTrouble } from '../../repositories/tray/change-sets';
import type { Before, Predicted } from '../../repositories/tray/before';
import { updateChanges } from '../../repositories/tray/changes';
import { listOutsideChanges } from '../../repositories/structure/outside-changes';
import { listWaitingVersions } from '../../repositories/lists/list-versions';
import type { Db } from '../../db/connection';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { outlookOf } from '../outlook/foresee-tray';
import { workOf } from './kinds';

/**
 * Sends the tray: freezes the draft, notes what each change's terms cost so far and what it is predicted to save, opens a new draft and leaves the
 * rest to the job process. Where no platform is connected it is handed over instead: as a sheet, which a person
 * carries out.
 * @returns the id of the set that is on its way
 * @throws Refusal when the tray is empty, a change in it is held back, or a place would hold more than it may; nothing
 * was changed then
 */
export async function sendTray(deps: Deps, slug: string, personId: number): Promise<number> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, id);
    const open = await openWorkbench(deps, account, undefined, trx);
    if (open.drafted.length === 0) throw new Refusal('The tray is empty, so there is nothing to send.', 409);
    refuseIfHeldBack(open);
    refuseIfOverLimit(open);
    await refuseIfChangedElsewhere(trx, open);
    const setId = open.drafted[0]!.setId;
    const predicted = predictedOf(open);
    const weighed = open.drafted.map(({ id: changeId, change }) => ({
      id: changeId,
      before: { ...costBefore(open, change), predicted: predicted.get(changeId) },
    }));
    await updateChanges(trx, id, setId, weighed);
    const day = account.platformDay ?? new Date().toISOString().slice(0, 10);
    const isConnected = account.platformAccountId !== null;
    await freezeDraft(trx, id, setId, {
      ...{ as: isConnected ? 'sending' : 'handed over', by: personId, day },
    });
    await openDraft(trx, id);
    await raiseDecisionVersion(trx, id);
    if (isConnected) await deps.enqueue(trx, { name: 'send-change-set', accountId: id, changeSetId: setId });
    return setId;
  });
}

/** Asks the job process to go on at once with a set that waits after trouble. */
export async function sendAgain(deps: Deps, slug: string, setId: number): Promise<void> {
  const account = await requireAccount(deps, slug);
  const set = await findSet(deps.db, account.id, setId);
  if (set?.state !== 'sending') throw new Refusal('This is not on its way any more.', 409);
  await setTrouble(deps.db, account.id, setId, null);
  await deps.enqueue(deps.db, { name: 'send-change-set', accountId: account.id, changeSetId: setId });
}

function refuseIfHeldBack(open: Open) {
  for (const { change, forcedBecause } of open.drafted) {
    if (forcedBecause) continue;
    const hits = protectedBy(open, negativesBroughtBy(change, open.draft.gate));
    if (hits.length === 0) continue;
    throw new Refusal(
      `Nothing was sent. “${describeChange(change, open.names)}” would stop the protected term “${hits[0]}”. Remove the change, or put it in the tray again with a reason.`,
      409,
    );
  }
}

/** Rules 12: going over a limit is refused before anything is sent. */
function refuseIfOverLimit({ account, draft, drafted, names }: Open) {
  const changes = drafted.map((c) => c.change);
  const over = roomAfter(draft.gate, changes, account.limits).find(({ used, most }) => used > most);
  if (!over) return;
  const { what, place, used, most, couldDrop } = over;
  throw new Refusal(
    `Nothing was sent. With these changes ${describePlace(place, names)} would hold ${used} ${what}; its limit is ${most}. Take ${used - most} out of the tray or put them elsewhere.${sayCouldDrop(few(couldDrop))}`,
    409,
  );
}

/** What somebody else did to a list is looked at before it is changed again. */
async function refuseIfChangedElsewhere(trx: Db, open: Open) {
  const { account, drafted, names } = open;
  const waiting = await listWaitingVersions(trx, account.id);
  const touched = new Set(drafted.flatMap(({ change }) => listOf(change) ?? []));
  const unseen = waiting.find(({ listId }) => touched.has(listId));
  if (unseen) {
    throw new Refusal(
      `Nothing was sent. Somebody else changed the list ${unseen.listName} on the platform. Look at it in Lists, under Changed elsewhere: take it over or undo it, then send.`,
      409,
    );
  }
  const outside = new Set((await listOutsideChanges(trx, account.id)).map(({ change }) => changeKey(change)));
  const seen = drafted.find(({ change }) => outside.has(changeKey(change)));
  if (seen) {
    throw new Refusal(
      `Nothing was sent. Somebody else changed on the platform what “${describeChange(seen.change, names)}” is about. Look at it in Lists, under Changed elsewhere: take it over or undo it, then send.`,
      409,
    );
  }
  for (const { change } of open.drafted) {
    const stale = workOf(change).refuseToSend?.(change, open);
    if (stale) throw new Refusal(stale, 409);
  }
}

/** What each change is likely to bring beyond those before it: the ledger holds it against what it brought. */
function predictedOf(open: Open): ReadonlyMap<number, Predicted> {
  const { days, changes } = outlookOf(open);
  return new Map(
    changes.map(({ id, stoppedMicros, netMicros, variance }) => [
      id,
      {
        days,
        stoppedMicros: Math.round(stoppedMicros),
        netMicros: Math.round(netMicros),
        variance: Math.round(variance),
      },
    ]),
  );
}

/** What the terms that a change is about cost in the window before it was sent, where it acts. */
function costBefore(open: Open, change: Change): Before {
  const { terms, ...figures }: Weight = weighRows(open.snapshot, rowsActedOn(change, open.draft.gate));
  return { window: open.snapshot.window, terms, figures };
}
