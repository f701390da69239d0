import { listMadeBy, listOf, rowsActedOn, type Change } from '@/core';
import type { Weight } from '@/contracts/common';
import { weighRows } from '../../compute/workbench';
import type { Db } from '../../db/connection';
import { lockAccount, raiseDecisionVersion, type Account } from '../../repositories/account/accounts';
import { findSet, freezeDraft, openDraft, setSendAt, setTrouble } from '../../repositories/tray/change-sets';
import type { Before, Predicted } from '../../repositories/tray/before';
import { moveRest, updateChanges, type StoredChange } from '../../repositories/tray/changes';
import { endLook, moveLook } from '../../repositories/tray/second-looks';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { outlookOf } from '../outlook/foresee-tray';
import { checkBeforeSending } from './check-before-sending';
import { todayOf } from './end-dates';
import { requireSecondLook } from './second-look/second-look';

/** What of the tray is sent, and when; all of it and at once where nothing is said. */
export type Sending = {
  /** changes that are sent; the others stay in the tray */
  only?: readonly number[];
  /** when it is to begin, an ISO time */
  at?: string;
  /** the rule that sends it by itself */
  rule?: number;
};

/**
 * Sends the tray, or some of it: freezes the draft, notes what each change's terms cost so far and what it is predicted to
 * save, opens a new draft and leaves the rest to the job process. Where no platform is connected it is handed over instead:
 * as a sheet, which a person carries out.
 * @returns the id of the set that is on its way
 * @throws Refusal when nothing is to be sent, a change is held back, or a place would hold more than it may, or it
 * needs a second look; nothing was changed then
 */
export async function sendTray(
  deps: Deps,
  slug: string,
  personId: number,
  sending: Sending = {},
): Promise<number> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    return sendWithin(deps, trx, await lockAccount(trx, id), personId, sending);
  });
}

/** Sends from the tray of an account that is locked. */
export async function sendWithin(
  deps: Deps,
  trx: Db,
  account: Account,
  personId: number,
  sending: Sending,
): Promise<number> {
  const { id } = account;
  const open = await openWorkbench(deps, account, undefined, trx);
  if (open.drafted.length === 0) throw new Refusal('The tray is empty, so there is nothing to send.', 409);
  const isConnected = account.platformAccountId !== null;
  const at = timeOf(deps, sending, isConnected);
  const drafted = chosenOf(open.drafted, sending.only);
  await checkBeforeSending(deps, trx, { ...open, drafted });
  await requireSecondLook(deps, trx, open, personId, drafted);
  const setId = drafted[0]!.setId;
  const predicted = predictedOf(open);
  const weighed = drafted.map(({ id: changeId, change }) => ({
    id: changeId,
    before: { ...costBefore(open, change), predicted: predicted.get(changeId) },
  }));
  await updateChanges(trx, id, setId, weighed);
  const day = todayOf(deps, account);
  await freezeDraft(trx, id, setId, {
    ...{ as: isConnected ? 'sending' : 'handed over', by: personId, day, at: at?.toISOString() },
    rule: sending.rule,
  });
  const next = await openDraft(trx, id);
  const stays = { from: setId, to: next };
  if (drafted.length < open.drafted.length) {
    await moveRest(trx, id, stays, idsOf(drafted));
    await moveLook(trx, id, stays);
  } else await endLook(trx, id, setId);
  await raiseDecisionVersion(trx, id);
  if (isConnected)
    await deps.enqueue(trx, { name: 'send-change-set', accountId: id, changeSetId: setId }, at);
  return setId;
}

const idsOf = (changes: readonly StoredChange[]) => changes.map(({ id }) => id);

/** Nobody plans further ahead than a year. */
const MOST_DAYS_AHEAD = 366;

function timeOf({ clock }: Deps, { at }: Sending, isConnected: boolean): Date | undefined {
  if (at === undefined) return undefined;
  const time = new Date(at);
  const ahead = (time.getTime() - clock.now().getTime()) / 86_400_000;
  if (!isConnected)
    throw new Refusal('A tray that is handed over as a sheet can not be set for a time. Nothing was sent.');
  if (ahead <= 0) throw new Refusal('This time is past. Choose one to come, or send it now.');
  if (ahead > MOST_DAYS_AHEAD)
    throw new Refusal('A tray can be set for a time within a year. Nothing was sent.');
  return time;
}

/** The changes that are sent, with those that make the lists they need. */
function chosenOf(drafted: readonly StoredChange[], only: readonly number[] | undefined): StoredChange[] {
  if (only === undefined) return [...drafted];
  const wanted = new Set(only);
  const isChosen = ({ id }: StoredChange) => wanted.has(id);
  const needed = new Set(drafted.filter(isChosen).flatMap(({ change }) => listOf(change) ?? []));
  const chosen = drafted.filter((one) => isChosen(one) || needed.has(listMadeBy(one.change)?.listId ?? ''));
  if (chosen.length === 0)
    throw new Refusal('None of these changes is in the tray any more. Nothing was sent.', 409);
  return chosen;
}

/** Asks the job process to go on at once with a set that waits after trouble, or for its time. */
export async function sendAgain(deps: Deps, slug: string, setId: number): Promise<void> {
  const account = await requireAccount(deps, slug);
  const set = await findSet(deps.db, account.id, setId);
  if (set?.state !== 'sending') throw new Refusal('This is not on its way any more.', 409);
  await deps.db.transaction(async (trx) => {
    await setTrouble(trx, account.id, setId, null);
    if (set.sendAt === null) return;
    await setSendAt(trx, account.id, setId, deps.clock.now());
    await raiseDecisionVersion(trx, account.id);
  });
  await deps.enqueue(deps.db, { name: 'send-change-set', accountId: account.id, changeSetId: setId });
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
