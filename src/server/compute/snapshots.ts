import { LRUCache } from 'lru-cache';
import type { Window } from '@/core';
import type { Db } from '../db/connection';
import type { Account } from '../repositories/account/accounts';
import { derivedFrom } from './derived';
import { loadHistory, type History } from './history/history';
import { historyOfWindow, isWhole } from './history/history-of-window';
import { TakenBack } from './taken-back';
import { loadSnapshotData, openSnapshot, windowOf, type Snapshot, type SnapshotData } from './snapshot';

/** Snapshots by account, data version and window; the least recently used goes first. */
export type Snapshots = {
  /** The snapshot of a look-back of `days` days, or of an exact window. Requests at the same time share one reading. */
  get(db: Db, account: Account, days: number, exact?: Window): Promise<Snapshot>;
};

/** Snapshots that are kept, for those who share them. */
export type KeptSnapshots = LRUCache<string, Promise<Snapshot>>;
export const keptSnapshots = (most: number): KeptSnapshots => new LRUCache({ max: most });

/** Columns that one thread reads and all see. */
export type SharedData = SnapshotData | History;
/** The source of such columns: the database, or another thread that read it before. */
export type DataSource = <T extends SharedData>(key: string, load: () => Promise<T>) => Promise<T>;

/** Histories beside the snapshots that are kept: the windows of an account share one, and what is made from it. */
const historiesOf = derivedFrom(({ max }: KeptSnapshots) => new LRUCache<string, Promise<History>>({ max }));

/**
 * @param source the database unless given
 * @param kept those there are, where several callers share them; what is made from 12,000 terms takes about 20 MB
 */
export function createSnapshots(
  source: DataSource = (_, load) => load(),
  kept = keptSnapshots(8),
  signal?: AbortSignal,
): Snapshots {
  /** A window that holds all days says itself what they brought. */
  function findHistory(db: Db, account: Account, data: SnapshotData): Promise<History> {
    return keepHistory(account, () =>
      isWhole(data, account.lagDays)
        ? Promise.resolve(historyOfWindow(data))
        : loadHistory(db, account, signal),
    );
  }

  const loadPast = (db: Db, account: Account) => keepHistory(account, () => loadHistory(db, account, signal));

  function keepHistory(account: Account, load: () => Promise<History>): Promise<History> {
    const key = `history|${account.id}|${account.dataVersion}`;
    return keep(historiesOf(kept), key, () => source(key, load));
  }

  /** What is asked for under a key. A failure is not kept. */
  function keep<T extends object>(
    all: LRUCache<string, Promise<T>>,
    key: string,
    make: () => Promise<T>,
  ): Promise<T> {
    const known = all.get(key);
    if (known) return known;
    const value = make();
    all.set(key, value);
    value.catch(() => all.peek(key) === value && all.delete(key));
    return value;
  }

  function find(db: Db, account: Account, days: number, exact?: Window): Promise<Snapshot> {
    const key = [account.id, account.dataVersion, exact ? `${exact.from} ${exact.to}` : days].join('|');
    return keep(kept, key, async () => {
      // Both read most of the facts: they do so at the same time, unless the window itself holds them all.
      const window = await windowOf(db, account, days, exact);
      const past = isWhole(window, account.lagDays) ? undefined : loadPast(db, account);
      past?.catch(() => undefined); // told below
      const data = await source(key, () => loadSnapshotData(db, account, days, exact, signal));
      return openSnapshot(data, await (past ?? findHistory(db, account, data)));
    });
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
