import { listAccounts } from '../repositories/account/accounts';
import type { Deps } from './deps';

/** Builds the snapshot of each account's own window before someone asks for it. */
export async function warmUp(deps: Deps): Promise<void> {
  for (const account of await listAccounts(deps.db))
    await deps.snapshots.get(deps.db, account, account.windowDays);
}
