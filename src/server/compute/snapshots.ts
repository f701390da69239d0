import type { Window } from '@/core';
import type { Db } from '../db/connection';
import type { Account } from '../repositories/accounts';
import { buildSnapshot, type Snapshot } from './snapshot';

/** Snapshots of this process, by account, data version and window; the least recently used goes first. */
export type Snapshots = {
  /** The look-back of `days` days, or the exact window. Built once, however many ask. */
  get(db: Db, account: Account, days: number, exact?: Window): Promise<Snapshot>;
};

/** @param most snapshots kept; one of 12,000 terms takes about 20 MB */
export function createSnapshots(most = 8): Snapshots {
  const kept = new Map<string, Promise<Snapshot>>();
  return {
    get(db, account, days, exact) {
      const key = [account.id, account.dataVersion, exact ? `${exact.from} ${exact.to}` : days].join('|');
      const known = kept.get(key);
      kept.delete(key);
      const snapshot = known ?? buildSnapshot(db, account, days, exact);
      kept.set(key, snapshot);
      if (!known) snapshot.catch(() => kept.delete(key));
      if (kept.size > most) kept.delete(kept.keys().next().value!);
      return snapshot;
    },
  };
}
