import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { waitBefore } from '../../scripts/steps/watcher';

let folder: string;
let watcher: ChildProcess | undefined;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'gatepost-watch-'));
});
afterEach(() => {
  watcher?.kill('SIGTERM');
  rmSync(folder, { recursive: true, force: true });
});

/**
 * Watches a program that first writes its number into a file.
 * @param does what else it does
 * @param provesItselfMs how long it must run the first time
 */
function watchProgram(does: string, provesItselfMs: number): void {
  const program = path.join(folder, 'program.mjs');
  const pids = path.join(folder, 'pids');
  writeFileSync(
    program,
    `import { appendFileSync } from 'node:fs';
     appendFileSync(${JSON.stringify(pids)}, process.pid + '\\n');
     ${does}`,
  );
  writeFileSync(pids, '');
  const runner = path.join(folder, 'runner.mts');
  const watcherFile = path.resolve('scripts/steps/watcher.ts');
  writeFileSync(
    runner,
    `import { watch } from ${JSON.stringify(watcherFile)};
     watch([${JSON.stringify(program)}], ${JSON.stringify({ provesItselfMs, logFile: path.join(folder, 'program.log') })});`,
  );
  watcher = spawn(process.execPath, ['--import', 'tsx', runner], { stdio: 'ignore' });
}
const pids = () => readFileSync(path.join(folder, 'pids'), 'utf8').split('\n').filter(Boolean).map(Number);
const until = (isSo: () => boolean) => vi.waitUntil(isSo, { timeout: 30_000, interval: 25 });
function isAlive(pid: number): boolean {
  try {
    return process.kill(pid, 0);
  } catch {
    return false;
  }
}

test('a program that falls is started again, and ends with its watcher', async () => {
  watchProgram('setInterval(() => undefined, 1_000);', 0);
  await until(() => pids().length === 1);
  process.kill(pids()[0]!, 'SIGKILL');
  await until(() => pids().length === 2);
  process.kill(pids()[1]!, 'SIGKILL');
  await until(() => pids().length === 3);
  watcher!.kill('SIGTERM');
  await until(() => !isAlive(pids()[2]!) && watcher!.exitCode !== null);
});

test('one that falls as it first starts is left alone, and the watcher ends with its code', async () => {
  watchProgram('process.exit(3);', 60_000);
  await until(() => watcher!.exitCode !== null);
  expect(watcher!.exitCode).toBe(3);
  expect(pids()).toHaveLength(1);
});

test('waits grow, up to a minute', () => {
  expect([1, 2, 3, 7, 8, 20].map(waitBefore)).toEqual([500, 1_000, 2_000, 32_000, 60_000, 60_000]);
});

test('what it writes goes into its log, which is turned over as it grows', async () => {
  const line = 'x'.repeat(999);
  watchProgram(
    `console.error('begins'); for (let i = 0; i < 25_000; i++) console.log(${JSON.stringify(line)}); setInterval(() => undefined, 1_000);`,
    0,
  );
  const logs = () => readdirSync(folder).filter((name) => name.startsWith('program.log'));
  await until(() => logs().length === 3);
  const sizes = logs().map((name) => statSync(path.join(folder, name)).size);
  expect(Math.max(...sizes)).toBeLessThan(12e6);
  expect(logs().some((name) => readFileSync(path.join(folder, name), 'utf8').includes('begins'))).toBe(true);
}, 60_000);
