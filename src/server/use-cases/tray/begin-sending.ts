import { lockAccount, raiseDecisionVersion } from '../../repositories/account/accounts';
import { beginSending, type ChangeSet } from '../../repositories/tray/change-sets';
import { loadChangesOf } from '../../repositories/tray/changes';
import { appendLedger } from '../../repositories/ledger';
import { Refusal, type Deps } from '../deps';
import { openWorkbench } from '../open-workbench';
import { checkBeforeSending } from './check-before-sending';
import { todayOf } from './end-dates';
import { putBack } from './put-back';

/**
 * Begins with a set whose time has come, after the checks of sending were made once more: the account may have changed
 * since. What can not be sent any more is in the tray again, whole, and the ledger says why.
 * @returns whether it begins; not before its time
 */
export async function beginOrPutBack(
  deps: Deps,
  accountId: number,
  { id: setId, sendAt }: ChangeSet,
): Promise<boolean> {
  if (sendAt !== null && new Date(sendAt) > deps.clock.now()) return false;
  return deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, accountId);
    const changes = await loadChangesOf(trx, accountId, setId);
    const open = await openWorkbench(deps, account, undefined, trx);
    try {
      await checkBeforeSending(deps, trx, { ...open, drafted: changes });
    } catch (error) {
      if (!Refusal.is(error)) throw error;
      await putBack(trx, accountId, setId, changes);
      await appendLedger(trx, accountId, {
        ...{ actor: 'read-back', about: 'change' },
        what: `Not sent at its time, and back in the tray: ${error.message}`,
      });
      await raiseDecisionVersion(trx, accountId);
      return false;
    }
    const day = todayOf(deps, account);
    await beginSending(trx, accountId, setId, day);
    await raiseDecisionVersion(trx, accountId);
    return true;
  });
}
