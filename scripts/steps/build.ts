import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { buildSync } from 'esbuild';
import { Remedy, step } from './say';
import type { Settings } from './settings';

const SOURCES = [
  ...['src', 'demo', 'scripts/watch.ts', 'scripts/steps/watcher.ts', 'package-lock.json'],
  ...['next.config.ts', 'postcss.config.mjs', 'tsconfig.json'],
];

/**
 * Builds what is served: the web application, the job process and the stand-ins. Does nothing when the sources are
 * those of the last build.
 * @returns the version that is built: a digest of the sources
 */
export function buildAll(settings: Settings): string {
  const version = digestOfSources(settings.root);
  const stamp = path.join(settings.root, 'dist', 'version');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === version) return version;
  bundleProcesses(settings.root);
  step('Building the web application');
  const run = spawnSync(process.execPath, ['node_modules/next/dist/bin/next', 'build'], {
    cwd: settings.root,
    env: { ...process.env, NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1' },
    encoding: 'utf8',
  });
  if (run.status !== 0) throw new Remedy(`The build failed:\n${run.stdout}\n${run.stderr}`);
  writeFileSync(stamp, version);
  return version;
}

/** Bundles the processes that run beside the web application, and its worker threads, into dist/. */
export function bundleProcesses(root: string): void {
  buildSync({
    entryPoints: {
      jobs: 'src/server/jobs/main.ts',
      compute: 'src/server/threads/worker.ts',
      files: 'src/server/files/reader/main.ts',
      'ad-platform': 'src/standins/ad-platform/main.ts',
      'idea-source': 'src/standins/idea-source/main.ts',
      inbox: 'src/standins/inbox/main.ts',
      watch: 'scripts/watch.ts',
    },
    absWorkingDir: root,
    outdir: 'dist',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    alias: { 'server-only': path.join(root, 'tests/support/empty.ts') },
    sourcemap: true,
    logLevel: 'error',
  });
}

function digestOfSources(root: string): string {
  const hash = createHash('sha256');
  const add = (file: string) => {
    const full = path.join(root, file);
    if (!existsSync(full)) return;
    hash.update(file).update(readFileSync(full));
  };
  for (const source of SOURCES) {
    if (path.extname(source)) add(source);
    else {
      const entries = readdirSync(path.join(root, source), { recursive: true, withFileTypes: true });
      const files = entries
        .filter((e) => e.isFile())
        .map((e) => path.join(path.relative(root, e.parentPath), e.name));
      files.sort().forEach(add);
    }
  }
  return hash.digest('hex').slice(0, 16);
}
