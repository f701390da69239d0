import { rm } from 'node:fs/promises';
import { claimClearedBytes, deleteFetchedTwice } from '../../repositories/intake/reports';
import type { Deps } from '../deps';
import { pathOf } from './take-in';

/**
 * The job that removes the bytes of files which are older than their account keeps them, and with them what fetches brought
 * twice. Rows, refused rows and what a load replaced stay. A file that is being read or loaded is left.
 * @returns how many files went
 */
export async function clearFiles(deps: Deps): Promise<number> {
  // The database is told first: should this process fall in between, a file is left on the disk and never one that is named.
  const gone = [...(await claimClearedBytes(deps.db)), ...(await deleteFetchedTwice(deps.db))];
  for (const storedAs of gone) await rm(pathOf(deps, { storedAs }), { force: true });
  return gone.length;
}
