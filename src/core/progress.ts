/** Is told how much of some long work is done; what it throws ends the work. */
export type OnProgress = (done: number, of: number) => void;

const EVERY = 1_024;

/** Tells a progress now and then, so that a loop may call this at each of its turns. */
export function tellProgress(onProgress: OnProgress | undefined, done: number, of: number): void {
  if (onProgress && done % EVERY === 0) onProgress(done, of);
}
