import { counted } from '@/core';
import { lockAccount, raiseDecisionVersion } from '../../repositories/account/accounts';
import { askToStop, findSet, type ChangeSet } from '../../repositories/tray/change-sets';
import { loadChangesOf } from '../../repositories/tray/changes';
import type { Db } from '../../db/connection';
import { appendLedger } from '../../repositories/ledger';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { putBack } from './put-back';

/**
 * Asks the job that sends a tray to stop after the batch that is on its way. What was answered stays sent and is read
 * back; the rest is in the tray again. A tray that waits for its time is back at once.
 * @throws Refusal when the tray is not being sent
 */
export async function stopSending(
  deps: Deps,
  slug: string,
  personId: number,
  setId: number,
): Promise<{ said: string }> {
  const { id } = await requireAccount(deps, slug);
  const back = await deps.db.transaction((trx) => takeBackScheduled(trx, id, personId, setId));
  if (back > 0) return { said: `Not sent: ${counted(back, 'change')} back in the tray.` };
  if (!(await askToStop(deps.db, id, setId)))
    throw new Refusal('This tray is not being sent any more, so nothing was stopped.', 409);
  const said = 'Sending stops after the batch that is on its way';
  await appendLedger(deps.db, id, { actor: { person: personId }, about: 'change', what: said });
  await raiseDecisionVersion(deps.db, id);
  return { said: `${said}. What was answered stays sent; the rest is in the tray again then.` };
}

/** @returns how many changes of a set that waits for its time are in the tray again; 0 where it does not wait */
async function takeBackScheduled(
  trx: Db,
  accountId: number,
  personId: number,
  setId: number,
): Promise<number> {
  await lockAccount(trx, accountId);
  const set = await findSet(trx, accountId, setId);
  if (set?.state !== 'sending' || set.sendAt === null) return 0;
  const changes = await loadChangesOf(trx, accountId, setId);
  await putBack(trx, accountId, setId, changes);
  await appendLedger(trx, accountId, {
    ...{ actor: { person: personId }, about: 'change' },
    what: `Not sent at its time: ${counted(changes.length, 'change')} back in the tray`,
  });
  await raiseDecisionVersion(trx, accountId);
  return changes.length;
}

/** Puts what of a stopped set has no answer back in the draft. */
export async function putRestBack(deps: Deps, accountId: number, { id: setId }: ChangeSet): Promise<void> {
  await deps.db.transaction(async (trx) => {
    await lockAccount(trx, accountId);
    const rest = (await loadChangesOf(trx, accountId, setId)).filter(({ state }) => state === 'drafted');
    if (rest.length === 0) return;
    await putBack(trx, accountId, setId, rest);
    await appendLedger(trx, accountId, {
      ...{ actor: 'read-back', about: 'change' },
      what: `Sending was stopped: ${counted(rest.length, 'change')} back in the tray`,
    });
    await raiseDecisionVersion(trx, accountId);
  });
}
