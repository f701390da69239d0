import { rm } from 'node:fs/promises';
import { claimClearedBytes, deleteFetchedTwice } from '../../repositories/intake/reports';
import type { Deps } from '../deps';
import { pathOf } from './take-in';

/** Removes what fetches brought of which the same was loaded already. @returns how many files went */
export async function dropFetchedTwice(deps: Deps): Promise<number> {
  return remove(deps, await deleteFetchedTwice(deps.db));
}

/**
 * The job that removes the bytes of files which are older than their account keeps them, and with them what fetches brought
 * twice. Rows, refused rows and what a load replaced stay. A file that is being read or loaded is left.
 * @returns how many files went
 */
export async function clearFiles(deps: Deps): Promise<number> {
  return (await remove(deps, await claimClearedBytes(deps.db))) + (await dropFetchedTwice(deps));
}

/** The database was told first: should this process fall, a file is left on the disk and never one that is named. */
async function remove(deps: Deps, gone: readonly string[]): Promise<number> {
  for (const storedAs of gone) await rm(pathOf(deps, { storedAs }), { force: true });
  return gone.length;
}
