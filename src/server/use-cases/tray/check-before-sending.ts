import { changeKey, describeChange, describePlace, listOf, roomAfter } from '@/core';
import { sayCouldDrop } from '@/contracts/tray';
import { few } from '../../compute/workbench';
import { listOutsideChanges } from '../../repositories/structure/outside-changes';
import { listWaitingVersions } from '../../repositories/lists/list-versions';
import type { Db } from '../../db/connection';
import { Refusal, type Deps } from '../deps';
import type { Open } from '../open-workbench';
import { knotsGone, nameOfKnot } from '../untangle/knots/still-there';
import { hurtBy } from './hurts';
import { workOf } from './kinds';

/**
 * What stands against sending the changes of a draft, or of a set whose time has come.
 * @param open its `drafted` are the changes to be sent
 * @throws Refusal when one is held back, a place would hold more than it may, or somebody else changed what one is about
 */
export async function checkBeforeSending(deps: Deps, trx: Db, open: Open): Promise<void> {
  await refuseIfUntangled(deps, open);
  refuseIfHeldBack(open);
  refuseIfOverLimit(open);
  await refuseIfChangedElsewhere(trx, open);
}

/** What a change was made for is looked at again: nothing is removed as needless that became needed meanwhile. */
async function refuseIfUntangled(deps: Deps, open: Open): Promise<void> {
  const made = open.drafted.filter(({ knot }) => knot !== null);
  if (made.length === 0) return;
  const knots = made.map(({ knot }) => knot!);
  const gone = await knotsGone(deps, open, knots, made);
  const first = made.find(({ knot }) => gone.has(nameOfKnot(knot!)));
  if (!first) return;
  throw new Refusal(
    `Nothing was sent. “${describeChange(first.change, open.names)}” was to untangle what is otherwise by now. Take it out of the tray, and look again in Untangle.`,
    409,
  );
}

function refuseIfHeldBack(open: Open) {
  for (const { change, forcedBecause } of open.drafted) {
    if (forcedBecause) continue;
    const hits = hurtBy(open, change, open.draft.gate);
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
