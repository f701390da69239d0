import type { HistoryView } from '@/contracts/lists';
import { raiseDecisionVersion } from '../../repositories/account/accounts';
import { appendLedger } from '../../repositories/ledger';
import { findListVersion, listVersionsOf, settleListVersion } from '../../repositories/lists/list-versions';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';
import { requireList } from './known-lists';
import { sayVersion } from './in-words';

/** A list's history as differences, the newest first. */
export async function viewHistory(deps: Deps, slug: string, listId: string): Promise<HistoryView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const { id, name } = requireList(open, listId);
  const versions = await listVersionsOf(deps.db, open.account.id, listId);
  return { list: { id, name }, versions: versions.map((version) => sayVersion(open, version)) };
}

/** A person has seen what somebody else changed, and it may stay. */
export async function takeOverVersion(
  deps: Deps,
  slug: string,
  personId: number,
  versionId: number,
  undoes?: number,
): Promise<void> {
  const { id: accountId } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    const version = await findListVersion(trx, accountId, versionId);
    if (!version || !(await settleListVersion(trx, accountId, versionId, 'taken over')))
      throw new Refusal('This is settled already: another person took it over or undid it.', 409);
    await appendLedger(trx, accountId, {
      actor: { person: personId },
      about: 'change',
      what: `Took over what somebody else changed in the list ${version.listName}`,
      after: version.difference,
      ...{ undo: { do: 'let version wait', version: versionId }, undoes },
    });
    await raiseDecisionVersion(trx, accountId);
  });
}
