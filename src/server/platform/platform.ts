import type {
  ChangesAnswer,
  Faults,
  PlatformAccount,
  PlatformChange,
  StructureAnswer,
} from '@/contracts/platform';

/** The port to an ad platform. Every call may fail with OutsideTrouble. */
export type Platform = {
  /** The accounts that it has. */
  accounts(): Promise<PlatformAccount[]>;
  structure(accountId: string, since: number): Promise<StructureAnswer>;
  /** A search term report as CSV, as a stream of bytes. */
  report(accountId: string, window: { from: string; to: string }): Promise<AsyncIterable<Uint8Array>>;
  /** At most 500 changes, in order; one answer for each, and the revision that a read-back must have reached. */
  change(accountId: string, changes: { key: string; change: PlatformChange }[]): Promise<ChangesAnswer>;
  /** Moves a stand-in's clock on. */
  moveClock(accountId: string, days: number): Promise<{ today: string }>;
  /** What is to go wrong on a stand-in; null only asks. @returns what is on */
  faults(accountId: string, faults: Faults | null): Promise<Faults>;
};
