import type { Days } from '@/contracts/days';
import type { Change, Names } from '@/core';
import { layWorkbench, type Verdicts, type Workbench } from '../compute/workbench';
import type { Snapshot } from '../compute/snapshot';
import { findAccount, type Account } from '../repositories/account/accounts';
import { loadDraft, loadUnderway, type StoredChange } from '../repositories/tray/changes';
import { loadNamesOfGoneLists } from '../repositories/lists/list-versions';
import { listProtectedTerms } from '../repositories/decisions/protected-terms';
import { clicksSinceAside, listSetAside } from '../repositories/decisions/set-aside';
import { listWordTags } from '../repositories/decisions/word-tags';
import { Refusal, type Deps } from './deps';
import type { Db } from '../db/connection';
import { derivedFrom } from '../compute/derived';
import { namesIn } from './names';

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
  /** accepted by the platform or said to be done, and not seen there yet: it counts as in force */
  accepted: StoredChange[];
  /** sent or handed over, and nobody says yet that it was done: it counts with the tray */
  waiting: StoredChange[];
  /** all of them, in the order in which they are laid over the account */
  laid: readonly Change[];
  names: Names;
};

/** The last workbench laid over a snapshot, and the account at that moment with the version of its decisions. */
const lastLaid = derivedFrom((_: Snapshot): { of: string; open: Open | null } => ({ of: '', open: null }));

/**
 * Opens an account's window with the changes on their way and the draft laid over it. Cached per snapshot and version
 * of the decisions. Calls within a transaction bypass the cache, because they must see uncommitted rows.
 */
export async function openWorkbench(
  deps: Deps,
  account: Account,
  days?: Days,
  db: Db = deps.db,
): Promise<Open> {
  const snapshot = await openSnapshotOf(deps, account, days ?? account.windowDays);
  if (db !== deps.db) return lay(db, account, snapshot);
  const last = lastLaid(snapshot);
  const of = JSON.stringify(account);
  if (last.open && last.of === of) return last.open;
  const open = await lay(db, account, snapshot);
  Object.assign(last, { of, open });
  return open;
}

/** The snapshot of a look-back, or of the days from one to another. */
export function openSnapshotOf(deps: Deps, account: Account, days: Days): Promise<Snapshot> {
  return typeof days === 'number'
    ? deps.snapshots.get(deps.db, account, days)
    : deps.snapshots.get(deps.db, account, 0, days);
}

/** One after another: within a transaction there is one connection for all of them. */
async function lay(db: Db, account: Account, snapshot: Snapshot): Promise<Open> {
  const drafted = await loadDraft(db, account.id);
  const verdicts = await loadVerdicts(db, account.id);
  const underway = await loadUnderway(db, account.id);
  const sent = underway.filter(({ state }) => !['refused', 'missing', 'different'].includes(state));
  const waiting = sent.filter((c) => c.state === 'drafted');
  const accepted = sent.filter((c) => c.state !== 'drafted');
  const workbench = layWorkbench(snapshot, { accepted, waiting, drafted }, verdicts);
  const laid = [...accepted, ...waiting, ...drafted].map(({ change }) => change);
  const gone = await loadNamesOfGoneLists(db, account.id);
  const names = namesIn(snapshot, laid, account.currency, gone);
  return { ...workbench, account, drafted, accepted, waiting, laid, names };
}

async function loadVerdicts(db: Db, accountId: number): Promise<Verdicts> {
  const protectedOwn = await listProtectedTerms(db, accountId);
  const all = await listSetAside(db, accountId);
  const clicks = all.length > 0 ? await clicksSinceAside(db, accountId) : new Map<string, number>();
  const aside = all.filter(({ key, moreClicks }) => (clicks.get(key) ?? 0) < moreClicks);
  return { protectedOwn, aside, tags: await listWordTags(db, accountId) };
}
