import { spawn, type ChildProcess } from 'node:child_process';

/** A program that falls sooner after its first start does not work at all, and is not started again. */
const PROVES_ITSELF_MS = 3_000;
/** A program that ran as long has recovered: the next wait is the first one again. */
const RECOVERED_MS = 60_000;
const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 60_000;

/**
 * How long to wait before a program is started again.
 * @param falls how often it fell since it last ran for a while, 1 or more
 */
export function waitBefore(falls: number): number {
  return Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (falls - 1));
}

/**
 * Runs a Node program and starts it again when it falls, after waits that grow. Ends with the program when it is told to
 * end, and at once when the program falls as it first starts.
 * @param args the program and its arguments
 * @param provesItselfMs how long it must run the first time
 */
export function watch(args: readonly string[], provesItselfMs = PROVES_ITSELF_MS): void {
  let child: ChildProcess;
  let falls = 0;
  let isFirst = true;
  let isEnding = false;
  let timer: NodeJS.Timeout | undefined;

  function start() {
    const startedAt = Date.now();
    child = spawn(process.execPath, args, { stdio: 'inherit' });
    child.on('exit', (code, signal) => {
      const ran = Date.now() - startedAt;
      if (isEnding || code === 0) process.exit(code ?? 0);
      if (isFirst && ran < provesItselfMs) process.exit(code ?? 1);
      isFirst = false;
      falls = ran > RECOVERED_MS ? 1 : falls + 1;
      const wait = waitBefore(falls);
      console.error(`${args.join(' ')} fell (${signal ?? code}); it is started again in ${wait} ms`);
      timer = setTimeout(start, wait);
    });
  }

  for (const signal of ['SIGTERM', 'SIGINT'] as const) {
    process.on(signal, () => {
      isEnding = true;
      clearTimeout(timer);
      if (child.exitCode !== null || child.signalCode !== null) process.exit(0);
      child.kill(signal);
    });
  }
  start();
}
