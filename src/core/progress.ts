/** Is told how much of some long work is done; what it throws ends the work. */
export type OnProgress = (done: number, of: number) => void;

const EVERY = 1_024;

/** Tells a progress now and then, and when all is done, so that a loop may call this at each of its turns and after it. */
export function tellProgress(onProgress: OnProgress | undefined, done: number, of: number): void {
  if (onProgress && (done % EVERY === 0 || done === of)) onProgress(done, of);
}
