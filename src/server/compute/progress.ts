import { AsyncLocalStorage } from 'node:async_hooks';
import type { Progress, Stage } from '@/contracts/work';
import type { OnProgress } from '@/core';

/** Hears how far a request is; what it throws ends the request. */
type Hear = (progress: Progress) => void;

/** Kept beside the call, so that what is derived from a snapshot need not hand it on. */
const hearing = new AsyncLocalStorage<Hear>();

/** Does some work; who asked for it hears how far it is. */
export function withProgress<T>(hear: Hear, work: () => T): T {
  return hearing.run(hear, work);
}

/**
 * Tells the progress of a stage to whoever asked for the work that is being done. It is to be taken before a stream is
 * listened to, whose events belong to nobody.
 * @returns undefined where nobody hears
 */
export function progressOf(stage: Stage): OnProgress | undefined {
  const hear = hearing.getStore();
  return hear && ((done, of) => hear({ stage, done, of }));
}
