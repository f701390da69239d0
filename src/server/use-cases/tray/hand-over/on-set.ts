import { lockAccount, raiseDecisionVersion } from '../../../repositories/account/accounts';
import type { Db } from '../../../db/connection';
import { findSet, type ChangeSet } from '../../../repositories/tray/change-sets';
import { Refusal, type Deps } from '../../deps';
import { openWorkbench, requireAccount, type Open } from '../../open-workbench';

/**
 * Does something to a tray that was given out, alone with its account, and all or nothing of it.
 * @throws Refusal when the tray is not there
 */
export async function onSet<Answer>(
  deps: Deps,
  slug: string,
  setId: number,
  work: (trx: Db, open: Open, set: ChangeSet) => Promise<Answer>,
): Promise<Answer> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, id);
    const set = await findSet(trx, id, setId);
    if (!set || set.state === 'draft') throw new Refusal('This tray is not there any more.', 404);
    const open = await openWorkbench(deps, account, undefined, trx);
    const answer = await work(trx, open, set);
    await raiseDecisionVersion(trx, id);
    return answer;
  });
}
