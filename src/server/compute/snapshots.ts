import type { Window } from '@/core';
import type { Db } from '../db/connection';
import type { Account } from '../repositories/account/accounts';
import { loadSnapshotData, openSnapshot, type Snapshot, type SnapshotData } from './snapshot';

/** Snapshots by account, data version and window; the least recently used goes first. */
export type Snapshots = {
  /** The snapshot of a look-back of `days` days, or of an exact window. Requests at the same time share one reading. */
  get(db: Db, account: Account, days: number, exact?: Window): Promise<Snapshot>;
};

/** Why reading stops when nobody waits for it any more. */
export class TakenBack extends Error {
  override name = 'TakenBack';
}

/** The source of a snapshot's data: the database, or another thread that read it before. */
export type DataSource = (key: string, load: () => Promise<SnapshotData>) => Promise<SnapshotData>;

/**
 * @param most snapshots kept; what is made from 12,000 terms takes about 20 MB
 * @param source the database unless given
 * @param kept those there are, where several callers share them
 */
export function createSnapshots(
  most = 8,
  source: DataSource = (_, load) => load(),
  kept = new Map<string, Promise<Snapshot>>(),
  signal?: AbortSignal,
): Snapshots {
  function find(db: Db, account: Account, days: number, exact?: Window): Promise<Snapshot> {
    const key = [account.id, account.dataVersion, exact ? `${exact.from} ${exact.to}` : days].join('|');
    const known = kept.get(key);
    kept.delete(key);
    const snapshot =
      known ??
      source(key, () => loadSnapshotData(db, account, days, exact, signal)).then((data) =>
        openSnapshot(data),
      );
    kept.set(key, snapshot);
    if (!known) snapshot.catch(() => kept.delete(key));
    if (kept.size > most) kept.delete(kept.keys().next().value!);
    return snapshot;
  }

  return {
    async get(db, account, days, exact) {
      for (;;) {
        try {
          return await find(db, account, days, exact);
        } catch (error) {
          // Another question was being answered by this reading, and was taken back; ours was not.
          if (!(error instanceof TakenBack) || signal?.aborted) throw error;
        }
      }
    },
  };
}
