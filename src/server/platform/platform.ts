import type {
  ChangesAnswer,
  Faults,
  PlatformAccount,
  PlatformChange,
  StructureAnswer,
} from '@/contracts/platform';

/** The port to an ad platform. Every call may fail with PlatformTrouble. */
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

/**
 * The platform did not do what was asked.
 *  - no answer: it may or may not have done it; the same call with the same keys is safe
 *  - not yet: it did nothing, and is to be asked again after some seconds
 *  - refused: it understood and said no; saying it again is of no use
 */
export class PlatformTrouble extends Error {
  override name = 'PlatformTrouble';
  constructor(
    readonly kind: 'no answer' | 'not yet' | 'refused',
    message: string,
    /** seconds to wait before asking again, where the platform said so */
    readonly waitSeconds?: number,
  ) {
    super(message);
  }
}
