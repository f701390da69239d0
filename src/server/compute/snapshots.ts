import { LRUCache } from 'lru-cache';
import { lookBack, type Window } from '@/core';
import type { Db } from '../db/connection';
import type { Account } from '../repositories/account/accounts';
import { findDataDays } from '../repositories/intake/reports';
import { derivedFrom } from './derived';
import { loadFacts, type Facts } from './facts/facts';
import { sumHistory } from './facts/sum-history';
import { sumWindow } from './facts/sum-window';
import type { History } from './history/history';
import { bytesOf } from './shared-columns';
import { TakenBack } from './taken-back';
import { loadStanding, openSnapshot, type Snapshot, type WindowData, type WindowFacts } from './snapshot';

/** Snapshots by account, version and window; the least recently used goes first. */
export type Snapshots = {
  /** The snapshot of a look-back of `days` days, or of an exact window. Requests at the same time share one reading. */
  get(db: Db, account: Account, days: number, exact?: Window): Promise<Snapshot>;
};

/** Snapshots that are kept, for those who share them, by the bytes that they take. */
export type KeptSnapshots = LRUCache<string, Promise<Snapshot>>;

/** @param mostBytes the newest stays, whatever it takes */
export const keptSnapshots = (mostBytes = 1e9): KeptSnapshots => new LRUCache({ maxSize: mostBytes });

/** Columns that one thread reads and all see. */
export type SharedData = WindowData | History;
/** The source of such columns: the database, or another thread that read it before. */
export type DataSource = <T extends SharedData>(key: string, load: () => Promise<T>) => Promise<T>;

/** Columns beside the snapshots that are kept, which the snapshots of one account share. */
const columnsOf = derivedFrom(({ maxSize }: KeptSnapshots) => ({
  histories: new LRUCache<string, Promise<History>>({ maxSize }),
  windows: new LRUCache<string, Promise<WindowFacts>>({ maxSize }),
}));

/** What is made from a window (words, posting lists, orders, sums), by the terms that it holds, and the account around it. */
const [BYTES_A_TERM, BYTES_AROUND] = [400, 10e6];
const bytesOfWindow = (data: WindowData) => bytesOf(data.rows, data.terms);
const bytesOfSnapshot = (snapshot: Snapshot) =>
  bytesOfWindow(snapshot) + BYTES_A_TERM * snapshot.terms.count + BYTES_AROUND;
const bytesOfHistory = (history: History) => bytesOf(history.rows, history.terms, history);

/**
 * @param source the database unless given
 * @param kept those there are, where several callers share them
 */
export function createSnapshots(
  source: DataSource = (_, load) => load(),
  kept = keptSnapshots(),
  signal?: AbortSignal,
): Snapshots {
  /** What is asked for under a key. A failure is not kept. */
  function keep<T extends object>(
    all: LRUCache<string, Promise<T>>,
    key: string,
    bytes: (value: T) => number,
    make: () => Promise<T>,
  ): Promise<T> {
    const known = all.get(key);
    if (known) return known;
    const value = make();
    const set = (size: number) => all.set(key, value, { size: Math.min(Math.max(size, 1), all.maxSize) });
    set(1);
    value.then(
      (is) => all.peek(key) === value && set(bytes(is)),
      () => all.peek(key) === value && all.delete(key),
    );
    return value;
  }

  /** A window and the history behind it: the facts are read once for both. */
  function findFacts(db: Db, account: Account, days: number, exact?: Window): Promise<WindowFacts> {
    const { histories, windows } = columnsOf(kept);
    const version = [account.id, account.factsVersion, account.lagDays].join('|');
    let all: Facts | undefined;
    const findHistory = () =>
      keep(histories, version, bytesOfHistory, () =>
        source(`history|${version}`, async () => {
          all = await loadFacts(db, account.id, undefined, signal);
          return sumHistory(all, account.lagDays);
        }),
      );
    const key = `${version}|${exact ? `${exact.from} ${exact.to}` : days}`;
    return keep(windows, key, bytesOfWindow, async () => {
      const data = await source(key, async () => {
        await findHistory();
        const dataDays = all ? all.dataDays : await findDataDays(db, account.id);
        const window = exact ?? lookBack(dataDays?.to ?? '1990-01-01', days, account.lagDays);
        const there = all ?? (await loadFacts(db, account.id, window, signal));
        return { window, dataDays, ...sumWindow(there, window) };
      });
      return { ...data, history: await findHistory() };
    });
  }

  function find(db: Db, account: Account, days: number, exact?: Window): Promise<Snapshot> {
    const key = [account.id, account.dataVersion, exact ? `${exact.from} ${exact.to}` : days].join('|');
    return keep(kept, key, bytesOfSnapshot, async () => {
      const facts = await findFacts(db, account, days, exact);
      return openSnapshot(facts, await loadStanding(db, account.id), account.keeperConversions);
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
