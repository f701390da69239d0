import { counted, inverse, shiftDay, stopsIn } from '@/core';
import {
  listAccounts,
  lockAccount,
  raiseDecisionVersion,
  type Account,
} from '../../repositories/account/accounts';
import { appendLedger } from '../../repositories/ledger';
import { insertSending, openDraft } from '../../repositories/tray/change-sets';
import { insertChanges, loadDraft, type NewChange } from '../../repositories/tray/changes';
import { listEnding, setEnds, type Ending } from '../../repositories/tray/ending';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { refreshMirror } from './read-back';

/** Nobody plans an end further ahead than that. */
const MOST_YEARS = 3;

/**
 * Says until when stops in the tray are to act: from that day on they are taken back by themselves.
 * @param endsOn the first day on which they do not act any more; null for no end
 * @returns what each had before, so that it can be set back
 * @throws Refusal when the day is not to come, or a change stops nothing; nothing was changed then
 */
export async function setEndDate(
  deps: Deps,
  slug: string,
  changeIds: readonly number[],
  endsOn: string | null,
): Promise<{ was: { changeId: number; endsOn: string | null }[] }> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, id);
    const today = todayOf(deps, account);
    if (endsOn !== null && endsOn <= today)
      throw new Refusal(`An end lies after ${today}, the day in progress. Nothing was changed.`);
    if (endsOn !== null && endsOn > shiftDay(today, MOST_YEARS * 366))
      throw new Refusal(`An end lies within ${MOST_YEARS} years. Nothing was changed.`);
    const wanted = new Set(changeIds);
    const chosen = (await loadDraft(trx, id)).filter((one) => wanted.has(one.id));
    if (chosen.length === 0)
      throw new Refusal('None of these changes is in the tray any more. Nothing was changed.', 409);
    if (chosen.some(({ change }) => stopsIn(change) === undefined))
      throw new Refusal('Only what stops something can have an end. Nothing was changed.');
    await setEnds(trx, id, changeIds, endsOn);
    await raiseDecisionVersion(trx, id);
    return { was: chosen.map((one) => ({ changeId: one.id, endsOn: one.endsOn })) };
  });
}

/** The account's day in progress: the platform's, where one is connected. */
export const todayOf = (
  { clock }: Pick<Deps, 'clock'>,
  { platformDay }: Pick<Account, 'platformDay'>,
): string => platformDay ?? clock.now().toISOString().slice(0, 10);

/** The job that takes back, in all accounts, what was to end by now. One account's trouble does not keep the others waiting. */
export async function endAll(deps: Deps): Promise<void> {
  const failures: unknown[] = [];
  for (const account of await listAccounts(deps.db))
    if (!account.isRetired) await endOf(deps, account).catch((error: unknown) => failures.push(error));
  if (failures.length > 0) throw new AggregateError(failures, 'some stops could not be ended');
}

/** A connected platform says what day it is; it is asked only where something has an end. */
async function endOf(deps: Deps, account: Account): Promise<void> {
  if ((await listEnding(deps.db, account.id, '9999-12-31')).length === 0) return;
  if (account.platformAccountId !== null) await refreshMirror(deps, account.id);
  await endStops(deps, account.id);
}

/**
 * Takes back what was to end by today: as a tray of its own, which is sent at once; without a platform it is put in the
 * tray. What is taken back already, or is about to be, is left alone, so that it may be called again at any time.
 * @returns how many changes are taken back
 */
export async function endStops(deps: Deps, accountId: number): Promise<number> {
  return deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, accountId);
    const today = todayOf(deps, account);
    const ended = await listEnding(trx, accountId, today);
    if (ended.length === 0) return 0;
    const isConnected = account.platformAccountId !== null;
    const setId = isConnected
      ? await insertSending(trx, accountId, { by: ended[0]!.draftedById, day: today })
      : await openDraft(trx, accountId);
    await insertChanges(trx, accountId, setId, ended.map(takingBack));
    await appendLedger(trx, accountId, {
      ...{ actor: 'read-back', about: 'change' },
      what: `${counted(ended.length, 'stop')} came to the end that was set: ${isConnected ? 'sent to be taken back' : 'put in the tray to be taken back'}`,
    });
    await raiseDecisionVersion(trx, accountId);
    if (isConnected) await deps.enqueue(trx, { name: 'send-change-set', accountId, changeSetId: setId });
    return ended.length;
  });
}

const takingBack = ({ id, change, endsOn, draftedById }: Ending): NewChange => ({
  ...{ change: inverse(change), undoes: id, draftedBy: draftedById },
  why: `it was to end on ${endsOn}`,
});

/** What ends within some days: it is said before. */
export function listEndingWithin(deps: Deps, account: Account, days: number): Promise<Ending[]> {
  return listEnding(deps.db, account.id, shiftDay(todayOf(deps, account), days));
}
