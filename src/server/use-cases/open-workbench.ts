import type { Days } from '@/contracts/days';
import type { Change, Names } from '@/core';
import { extendWorkbench, layWorkbench, type Verdicts, type Workbench } from '../compute/workbench';
import type { Snapshot } from '../compute/snapshot';
import { findAccount, type Account } from '../repositories/account/accounts';
import {
  idsInDraft,
  loadDraft,
  loadDraftAfter,
  loadUnderway,
  type StoredChange,
} from '../repositories/tray/changes';
import { loadNamesOfGoneLists } from '../repositories/lists/list-versions';
import { listProtectedTerms } from '../repositories/decisions/protected-terms';
import { clicksSinceAside, listSetAside } from '../repositories/decisions/set-aside';
import { listLocationWords } from '../repositories/decisions/location-words';
import { listWordTags } from '../repositories/decisions/word-tags';
import { Refusal, type Deps } from './deps';
import type { Db } from '../db/connection';
import { derivedFrom, noteGrowth } from '../compute/derived';
import { namesIn, namesWithMade } from './names';

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

/** The workbench that is being laid over a snapshot, or was last, and the account at that moment. */
type Last = { account: Account; laying: Promise<Laid>; laid?: Laid };
const lastLaid = derivedFrom((_: Snapshot): { last: Last | null } => ({ last: null }));

/**
 * Opens an account's window with the changes on their way and the draft laid over it. Cached per snapshot and version
 * of the decisions: requests at the same time share one laying, and a draft that only grew is laid on from where it
 * was. Calls within a transaction get a workbench of their own, whose gate they may change, because they must see
 * uncommitted rows.
 */
export async function openWorkbench(
  deps: Deps,
  account: Account,
  days?: Days,
  db: Db = deps.db,
): Promise<Open> {
  const snapshot = await openSnapshotOf(deps, account, days ?? account.windowDays);
  const { last } = lastLaid(snapshot);
  if (db !== deps.db) return (await lay(db, account, snapshot, last?.laid)).open;
  // A request may come to know the account before another, and get here after it: what is newer serves it as well.
  const isKnown =
    last !== null &&
    last.account.decisionVersion >= account.decisionVersion &&
    isAlike(last.account, account);
  if (isKnown) return (await last.laying).open;
  const laying = (async () => lay(db, account, snapshot, await last?.laying.catch(() => undefined)))();
  const next: Last = { account, laying };
  lastLaid(snapshot).last = next;
  try {
    next.laid = await laying;
    return next.laid.open;
  } catch (error) {
    if (lastLaid(snapshot).last === next) lastLaid(snapshot).last = null;
    throw error;
  }
}

/** The snapshot of a look-back, or of the days from one to another. */
export function openSnapshotOf(deps: Deps, account: Account, days: Days): Promise<Snapshot> {
  return typeof days === 'number'
    ? deps.snapshots.get(deps.db, account, days)
    : deps.snapshots.get(deps.db, account, 0, days);
}

/** A workbench, and the state of the account as which it was laid. */
type Laid = { open: Open; account: Account };

/**
 * Lays the decisions over a snapshot. What was laid last serves where nothing was decided since; where the draft alone grew,
 * only what is new is laid. What is read is read one after another: within a transaction there is one connection for it.
 */
async function lay(db: Db, account: Account, snapshot: Snapshot, last?: Laid): Promise<Laid> {
  const isNear = last !== undefined && isAlike(last.account, account);
  if (isNear && last.account.decisionVersion === account.decisionVersion)
    return { open: extend(last.open, account, []), account };
  const ids = isNear ? await idsInDraft(db, account.id) : '';
  if (isNear && ids.startsWith(idsOf(last.open))) {
    const more = await loadDraftAfter(db, account.id, last.open.drafted.at(-1)?.id ?? 0);
    return { open: extend(last.open, account, more), account };
  }
  const drafted = await loadDraft(db, account.id);
  const verdicts = await loadVerdicts(db, account.id);
  const underway = await loadUnderway(db, account.id);
  const gone = await loadNamesOfGoneLists(db, account.id);
  return { open: layAnew(account, snapshot, { underway, drafted }, verdicts, gone), account };
}

const idsOf = ({ drafted }: Open) => drafted.map(({ id }) => `${id},`).join('');

type Stored = { underway: Awaited<ReturnType<typeof loadUnderway>>; drafted: StoredChange[] };

function layAnew(
  account: Account,
  snapshot: Snapshot,
  { underway, drafted }: Stored,
  verdicts: Verdicts,
  gone: ReadonlyMap<string, string>,
): Open {
  const sent = underway.filter(({ state }) => !['refused', 'missing', 'different'].includes(state));
  const waiting = sent.filter((c) => c.state === 'drafted');
  const accepted = sent.filter((c) => c.state !== 'drafted');
  const laid = [...accepted, ...waiting, ...drafted].map(({ change }) => change);
  return {
    ...layWorkbench(snapshot, { accepted, waiting, drafted }, verdicts),
    ...{ account, drafted, accepted, waiting, laid },
    names: namesIn(snapshot, laid, account.currency, gone),
  };
}

/** The same with more changes at the end of the draft. */
function extend(last: Open, account: Account, more: readonly StoredChange[]): Open {
  const changes = more.map(({ change }) => change);
  const open: Open = {
    ...extendWorkbench(last, more),
    ...{ account, drafted: [...last.drafted, ...more], laid: [...last.laid, ...changes] },
    names: namesWithMade(last, changes),
  };
  noteGrowth(open, last);
  return open;
}

/** Whether between two states of an account nothing was decided but what is drafted. */
function isAlike(one: Account, other: Account): boolean {
  const stated = (account: Account) => JSON.stringify({ ...account, decisionVersion: 0 });
  return stated(one) === stated(other);
}

async function loadVerdicts(db: Db, accountId: number): Promise<Verdicts> {
  const protectedOwn = await listProtectedTerms(db, accountId);
  const all = await listSetAside(db, accountId);
  const clicks = all.length > 0 ? await clicksSinceAside(db, accountId) : new Map<string, number>();
  const aside = all.filter(({ key, moreClicks }) => (clicks.get(key) ?? 0) < moreClicks);
  return {
    protectedOwn,
    aside,
    tags: await listWordTags(db, accountId),
    locations: await listLocationWords(db, accountId),
  };
}
