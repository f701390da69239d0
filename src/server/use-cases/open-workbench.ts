import { isNewListId, type Names } from '@/core';
import { layWorkbench, type Workbench } from '../compute/workbench';
import { findAccount, type Account } from '../repositories/accounts';
import { listSending, loadChangesOf, loadDraft, type StoredChange } from '../repositories/change-sets';
import { listProtectedTerms } from '../repositories/protected-terms';
import { Refusal, type Deps } from './deps';
import type { Db } from '../db/connection';

/** @throws Refusal when there is no such account */
export async function requireAccount(deps: Deps, slug: string): Promise<Account> {
  const account = await findAccount(deps.db, slug);
  if (!account) throw new Refusal(`There is no account ${slug}.`, 404);
  return account;
}

/** Everything that has been decided about an account, over a window of it. */
export type Open = Workbench & {
  account: Account;
  drafted: StoredChange[];
  /** sent, and not read back yet */
  onItsWay: StoredChange[];
  names: Names;
};

/** Opens an account's window with what is on its way and the draft laid over it. */
export async function openWorkbench(
  deps: Deps,
  account: Account,
  days?: number,
  db: Db = deps.db,
): Promise<Open> {
  const snapshot = await deps.snapshots.get(deps.db, account, days ?? account.windowDays);
  // One after another: within a transaction there is one connection for all of them.
  const drafted = await loadDraft(db, account.id);
  const protectedOwn = await listProtectedTerms(db, account.id);
  const sent: StoredChange[] = [];
  for (const set of await listSending(db, account.id))
    sent.push(...(await loadChangesOf(db, account.id, set.id)));
  const onItsWay = sent.filter((c) => c.state !== 'refused');
  const workbench = layWorkbench(snapshot, onItsWay, drafted, protectedOwn);
  return { ...workbench, account, drafted, onItsWay, names: namesIn(workbench, [...onItsWay, ...drafted]) };
}

/** Names of elements, lists that are still in the tray among them. */
export function namesIn({ snapshot }: Pick<Workbench, 'snapshot'>, changes: readonly StoredChange[]): Names {
  const made = new Map(
    changes.flatMap(({ change }) =>
      change.kind === 'make list' ? [[change.listId, change.name] as const] : [],
    ),
  );
  const lists = new Map(snapshot.mirror.lists.map((l) => [l.id, l.name]));
  return {
    campaign: (id) => snapshot.campaign.get(id)?.name,
    adGroup: (id) => snapshot.adGroup.get(id)?.name,
    list: (id) => lists.get(id) ?? made.get(id) ?? (isNewListId(id) ? 'a list not made yet' : undefined),
  };
}
