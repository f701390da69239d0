import { spawn, type ChildProcess } from 'node:child_process';
import path from 'node:path';
import { createStream } from 'rotating-file-stream';

/** A program that falls sooner after its first start does not work at all, and is not started again. */
const PROVES_ITSELF_MS = 3_000;
/** A program that ran as long has recovered: the next wait is the first one again. */
const RECOVERED_MS = 60_000;
const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 60_000;

/** A log begins anew when it is so large, and so many before it are kept. */
const LOG = { size: '10M', rotate: 8 } as const;

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
 * @param logFile where what it writes goes, turned over as it grows; where this process writes unless given
 */
export function watch(
  args: readonly string[],
  { provesItselfMs = PROVES_ITSELF_MS, logFile }: { provesItselfMs?: number; logFile?: string } = {},
): void {
  const log = logFile === undefined ? undefined : openLog(logFile);
  const say = (line: string) => void (log ? log.write(`${line}\n`) : console.error(line));
  const end = (code: number) => (log ? void log.end(() => process.exit(code)) : process.exit(code));
  let child: ChildProcess;
  let falls = 0;
  let isFirst = true;
  let isEnding = false;
  let timer: NodeJS.Timeout | undefined;

  function start() {
    const startedAt = Date.now();
    child = spawn(process.execPath, args, { stdio: log ? ['ignore', 'pipe', 'pipe'] : 'inherit' });
    if (log) for (const out of [child.stdout, child.stderr]) out?.pipe(log, { end: false });
    child.on('close', (code, signal) => {
      const ran = Date.now() - startedAt;
      if (isEnding || code === 0) return end(code ?? 0);
      if (isFirst && ran < provesItselfMs) return end(code ?? 1);
      isFirst = false;
      falls = ran > RECOVERED_MS ? 1 : falls + 1;
      const wait = waitBefore(falls);
      say(`${args.join(' ')} fell (${signal ?? code}); it is started again in ${wait} ms`);
      timer = setTimeout(start, wait);
    });
  }

  for (const signal of ['SIGTERM', 'SIGINT'] as const) {
    process.on(signal, () => {
      isEnding = true;
      clearTimeout(timer);
      if (child.exitCode !== null || child.signalCode !== null) return end(0);
      child.kill(signal);
    });
  }
  start();
}

function openLog(file: string) {
  const log = createStream(path.basename(file), { ...LOG, path: path.dirname(file) });
  // A disk that is full, say: the program goes on without its log.
  log.on('error', (error) => console.error(error));
  return log;
}
