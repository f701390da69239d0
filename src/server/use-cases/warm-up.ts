import { listAccounts } from '../repositories/account/accounts';
import type { Deps } from './deps';
import { requireAccount } from './open-workbench';

/** The data version of each account, by its name in addresses. */
export type DataVersions = ReadonlyMap<string, number>;

export async function findDataVersions(deps: Pick<Deps, 'db'>): Promise<DataVersions> {
  return new Map((await listAccounts(deps.db)).map(({ slug, dataVersion }) => [slug, dataVersion]));
}

/** Builds the snapshot of an account's own window before someone asks for it. */
export async function warmUp(deps: Deps, slug: string): Promise<void> {
  const account = await requireAccount(deps, slug);
  await deps.snapshots.get(deps.db, account, account.windowDays);
}

/**
 * Makes windows ready for whoever asks next: of all accounts the first time, then of those whose data changed since.
 * @param open makes the window of one account ready
 * @returns looks once; a window that could not be opened is tried again at the next look
 */
export function warmerOf(
  find: () => Promise<DataVersions>,
  open: (slug: string) => Promise<void>,
): () => Promise<void> {
  const warm = new Map<string, number>();
  return async () => {
    for (const [slug, version] of await find()) {
      if (warm.get(slug) === version) continue;
      await open(slug);
      warm.set(slug, version);
    }
  };
}
