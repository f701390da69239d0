import type { ExportsAnswer } from '@/contracts/exports';
import { insertExport, listExports } from '../../repositories/account/exports';
import type { Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/** Notes that a person saves a file, under the name that it has. */
export async function noteExport(deps: Deps, slug: string, personId: number, name: string): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  await insertExport(deps.db, id, { personId, name });
}

const MOST_SHOWN = 200;

/** Which files people saved from the account, the newest first. */
export async function viewExports(deps: Deps, slug: string): Promise<ExportsAnswer> {
  const { id } = await requireAccount(deps, slug);
  return { lines: await listExports(deps.db, id, MOST_SHOWN) };
}
