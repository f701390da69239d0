import pRetry from 'p-retry';
import { OutsideTrouble } from '../../../outside';

/** Tries after the first one. */
const RETRIES = 3;
/** Nobody waits longer than that for one answer while he looks at the screen. */
const LONGEST_WAIT_MS = 5_000;

/**
 * Asks a service again, after pauses that grow or that it asks for, while asking again is of use.
 * @throws OutsideTrouble when it refuses, or has not answered after some tries
 */
export function patiently<Answer>(ask: () => Promise<Answer>, firstWaitMs = 500): Promise<Answer> {
  return pRetry(ask, {
    retries: RETRIES,
    minTimeout: firstWaitMs,
    maxTimeout: LONGEST_WAIT_MS,
    shouldRetry: ({ error }) => error instanceof OutsideTrouble && error.kind !== 'refused',
    async onFailedAttempt({ error }) {
      if (!(error instanceof OutsideTrouble) || error.waitSeconds === undefined) return;
      const ms = Math.min(1_000 * error.waitSeconds, LONGEST_WAIT_MS);
      await new Promise((resolve) => setTimeout(resolve, ms));
    },
  });
}
