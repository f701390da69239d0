import { min } from 'd3';
import {
  findAccount,
  insertAccount,
  insertPeople,
  listAccounts,
  listPeople,
  updateAccount,
  type NewAccount,
} from '../repositories/account/accounts';
import { makeAllOwners } from '../repositories/account/members';
import { findReportFile } from '../repositories/intake/reports';
import type { Deps } from './deps';
import { fetchReport } from './intake/fetch-report';

/** Whether every account that is expected is there and has its first report. */
export async function areLoaded(deps: Deps, slugs: readonly string[]): Promise<boolean> {
  const accounts = await listAccounts(deps.db);
  return slugs.every((slug) =>
    accounts.some((a) => a.slug === slug && a.structureRevision > 0 && a.dataVersion > 2),
  );
}

/** The day in progress that all of these accounts have reached; null where one of them is not there, or knows none. */
export async function reachedDay(deps: Deps, slugs: readonly string[]): Promise<string | null> {
  const accounts = await listAccounts(deps.db);
  const days = slugs.map((slug) => accounts.find((one) => one.slug === slug)?.platformDay ?? null);
  return days.includes(null) ? null : (min(days as string[]) ?? null);
}

export function addPeople(deps: Deps, names: readonly string[]): Promise<void> {
  return insertPeople(deps.db, names);
}

/**
 * Adds an account of the connected platform, unless it is there, and asks for its first report.
 * @returns the file that is being loaded; null when there is nothing new
 */
export async function connectAccount(deps: Deps, account: NewAccount): Promise<number | null> {
  const there = await findAccount(deps.db, account.slug);
  if (!there) await makeAllOwners(deps.db, await insertAccount(deps.db, account));
  else if (there.platformAccountId === null) await updateAccount(deps.db, there.id, account);
  const [person] = await listPeople(deps.db);
  return fetchReport(deps, account.slug, person!.id);
}

/** How far a load is. */
export async function stateOfLoad(deps: Deps, slug: string, fileId: number) {
  const account = await findAccount(deps.db, slug);
  const file = account && (await findReportFile(deps.db, account.id, fileId));
  return file && { state: file.state, rowsRead: file.rowsRead, error: file.error };
}
