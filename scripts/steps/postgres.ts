import { randomBytes } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import {
  appendFileSync,
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import pg from 'pg';
import { isPortTaken } from './ports';
import { requirePostgres } from './programs';
import { Remedy, step } from './say';
import { databaseUrl, type Settings } from './settings';

const asRoot = process.getuid?.() === 0;

/** A running cluster of the project's own with the wanted database in it. Does nothing when it runs already. */
export async function startDatabase(settings: Settings): Promise<void> {
  const bin = requirePostgres();
  const folder = path.join(settings.data, 'pg');
  if (!existsSync(path.join(folder, 'PG_VERSION'))) createCluster(settings, bin, folder);
  if (!isRunning(bin, folder)) {
    if (await isPortTaken(settings.databasePort)) {
      throw new Remedy(
        `Port ${settings.databasePort} is taken by another program. Nothing was changed. Set GATEPOST_DB_PORT to a free port.`,
      );
    }
    step(`Starting the database on 127.0.0.1:${settings.databasePort}`);
    const log = path.join(folder, 'server.log');
    // No second server follows this one, so what is written into a new table need not go into the log as well.
    const options = `-p ${settings.databasePort} -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c wal_level=minimal -c max_wal_senders=0`;
    asDatabaseUser(path.join(bin, 'pg_ctl'), [
      '-D',
      folder,
      '-w',
      '-t',
      '60',
      '-l',
      log,
      '-o',
      options,
      'start',
    ]);
  } else adoptPortOf(folder, settings);
  await ensureDatabase(settings, settings.databaseName);
}

/** Stops the cluster; what is not running stays so. */
export function stopDatabase(settings: Settings): void {
  const folder = path.join(settings.data, 'pg');
  if (!existsSync(path.join(folder, 'PG_VERSION'))) return;
  const bin = requirePostgres();
  if (!isRunning(bin, folder)) return;
  step('Stopping the database');
  asDatabaseUser(path.join(bin, 'pg_ctl'), ['-D', folder, '-m', 'fast', '-w', 'stop']);
}

/** Makes a database when it is missing. */
export async function ensureDatabase(settings: Settings, name: string): Promise<void> {
  await onServer(settings, async (client) => {
    const { rowCount } = await client.query('select 1 from pg_database where datname = $1', [name]);
    if (rowCount === 0) await client.query(`create database ${client.escapeIdentifier(name)}`);
  });
}

/** Drops a database, with whoever is connected to it. */
export async function dropDatabase(settings: Settings, name: string): Promise<void> {
  await onServer(settings, async (client) => {
    await client.query(`drop database if exists ${client.escapeIdentifier(name)} with (force)`);
  });
}

async function onServer(settings: Settings, work: (client: pg.Client) => Promise<void>) {
  const client = new pg.Client({ connectionString: databaseUrl(settings, 'postgres') });
  await client.connect();
  try {
    await work(client);
  } finally {
    await client.end();
  }
}

function createCluster(settings: Settings, bin: string, folder: string) {
  step(`Making a database cluster in ${folder}`);
  const password = path.join(settings.data, 'database-password');
  writeFileSync(password, randomBytes(24).toString('base64url'), { mode: 0o600 });
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { mode: 0o700 });
  const handedOver = path.join(settings.data, 'initdb-password');
  writeFileSync(handedOver, readFileSync(password), { mode: 0o600 });
  if (asRoot) {
    chmodSync(settings.data, 0o711);
    const { uid, gid } = databaseUser();
    chownSync(folder, uid, gid);
    chownSync(handedOver, uid, gid);
  }
  asDatabaseUser(path.join(bin, 'initdb'), [
    ...['-D', folder, '--username=gatepost', `--pwfile=${handedOver}`, '--auth=scram-sha-256'],
    ...['--encoding=UTF8', '--locale=C.UTF-8'],
  ]);
  rmSync(handedOver);
  appendFileSync(
    path.join(folder, 'postgresql.conf'),
    "\n# Gate Post\nshared_buffers = '256MB'\nwork_mem = '32MB'\nmax_wal_size = '2GB'\nmax_connections = 100\n",
  );
}

function isRunning(bin: string, folder: string): boolean {
  return databaseUserRuns(path.join(bin, 'pg_ctl'), ['-D', folder, 'status']).status === 0;
}

/** A cluster that runs already keeps its port, whatever the setting says now. */
function adoptPortOf(folder: string, settings: Settings) {
  const port = Number(readFileSync(path.join(folder, 'postmaster.pid'), 'utf8').split('\n')[3]);
  if (port !== settings.databasePort) {
    step(
      `The database runs on port ${port} already; “./gatepost stop” first to move it to ${settings.databasePort}`,
    );
    settings.databasePort = port;
  }
}

function asDatabaseUser(program: string, args: string[]): void {
  const run = databaseUserRuns(program, args);
  if (run.status !== 0) {
    const log = readTail(args);
    throw new Remedy(`${path.basename(program)} failed:\n${run.stderr.trim() || run.stdout.trim()}${log}`);
  }
}

function readTail(args: string[]): string {
  const log = args[args.indexOf('-l') + 1];
  if (!args.includes('-l') || !log || !existsSync(log)) return '';
  return `\n${readFileSync(log, 'utf8').split('\n').slice(-6).join('\n')}`;
}

/** The server refuses root, so as root its programs run as the system's `postgres` user. */
function databaseUserRuns(program: string, args: string[]) {
  // The server must not hold our pipes open: only stderr is read, and pg_ctl closes it for the server it starts.
  const [run, all] = asRoot ? ['runuser', ['-u', 'postgres', '--', program, ...args]] : [program, args];
  return spawnSync(run, all, { cwd: '/', encoding: 'utf8' });
}

function databaseUser(): { uid: number; gid: number } {
  const id = (flag: string) =>
    Number(spawnSync('id', [flag, 'postgres'], { encoding: 'utf8' }).stdout.trim());
  return { uid: id('-u'), gid: id('-g') };
}
