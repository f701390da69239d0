import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { Remedy, step } from './say';

/** The folder of PostgreSQL's programs, installed from Debian's packages when missing. */
export function requirePostgres(): string {
  const found = findPostgres();
  if (found) return found;
  install('postgresql', 'PostgreSQL');
  const installed = findPostgres();
  if (!installed)
    throw new Remedy('PostgreSQL was installed, but its initdb was not found under /usr/lib/postgresql.');
  return installed;
}

/** Headless Chromium for the browser tests and the pictures. */
export function requireChromium(): string {
  const program = '/usr/bin/chromium';
  if (!existsSync(program)) install('chromium', 'Chromium');
  return program;
}

/** The proxy before several web processes, for the tests of them. */
export function requireProxy(): string {
  const program = '/usr/sbin/haproxy';
  if (!existsSync(program)) install('haproxy', 'HAProxy');
  return program;
}

function findPostgres(): string | undefined {
  const base = '/usr/lib/postgresql';
  if (!existsSync(base)) return undefined;
  const versions = readdirSync(base).sort((a, b) => Number(b) - Number(a));
  return versions.map((v) => path.join(base, v, 'bin')).find((bin) => existsSync(path.join(bin, 'initdb')));
}

function install(debianPackage: string, name: string) {
  const root = process.getuid?.() === 0;
  const sudo = !root && spawnSync('sudo', ['-n', 'true']).status === 0;
  const by = `apt-get install ${debianPackage}`;
  if (!root && !sudo)
    throw new Remedy(`${name} is missing. Nothing was changed. Run “sudo ${by}” and start this again.`);
  step(`Installing ${name} (${by})`);
  const prefix = root ? [] : ['sudo'];
  for (const line of [
    ['update', '-q'],
    ['install', '-y', '-q', '--no-install-recommends', debianPackage],
  ]) {
    const [program, ...args] = [...prefix, 'apt-get', ...line] as [string, ...string[]];
    const run = spawnSync(program, args, {
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      encoding: 'utf8',
    });
    if (run.status !== 0) throw new Remedy(`${by} failed:\n${run.stderr.trim()}\nMend this and start again.`);
  }
}
