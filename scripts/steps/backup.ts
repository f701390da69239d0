import { spawnSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import * as v from 'valibot';
import { connect, type Db } from '@/server/db/connection';
import { migrationsIn, MIGRATION_NAMES } from '@/server/db/migrate';
import { listAccounts } from '@/server/repositories/account/accounts';
import { dropDatabase, ensureDatabase, startDatabase } from './postgres';
import { requirePostgres } from './programs';
import { Remedy, step } from './say';
import { databaseUrl, readPassword, type Settings } from './settings';

/** What lies in a backup, beside the files that were brought. */
const DUMP = 'database.dump';
const ABOUT = 'backup.json';
const AboutSchema = v.object({
  gatepost: v.literal('backup'),
  at: v.string(),
  migrations: v.array(v.string()),
});

/**
 * Writes the database and the files that were brought into one file, as they are at this moment. Gate Post may run meanwhile.
 * @param files the folder of those files
 * @throws Remedy when it can not be written; no half of it is left
 */
export async function backUp(settings: Settings, file: string, files = filesOf(settings)): Promise<void> {
  await startDatabase(settings);
  const target = path.resolve(file);
  if (existsSync(target))
    throw new Remedy(`${target} is there already. Nothing was changed. Choose another name.`);
  const folder = mkdtempSync(path.join(path.dirname(target), '.gatepost-backup-'));
  try {
    step('Writing the database');
    runPostgres(settings, 'pg_dump', ['--format=custom', `--file=${path.join(folder, DUMP)}`]);
    const about: v.InferOutput<typeof AboutSchema> = {
      ...{ gatepost: 'backup', at: new Date().toISOString() },
      migrations: await asking(settings, migrationsIn),
    };
    writeFileSync(path.join(folder, ABOUT), JSON.stringify(about));
    step('Packing it with the files that were brought');
    mkdirSync(files, { recursive: true });
    const whole = path.join(folder, 'whole.tar');
    tar(['-cf', whole, '-C', folder, ABOUT, DUMP, '-C', path.dirname(files), path.basename(files)]);
    renameSync(whole, target);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/**
 * Puts a backup into a data folder that holds no account.
 * @throws Remedy when the folder holds accounts, the file is no backup, or of a newer version; nothing was changed then
 */
export async function restore(settings: Settings, file: string): Promise<void> {
  const source = path.resolve(file);
  if (!existsSync(source)) throw new Remedy(`There is no file ${source}. Nothing was changed.`);
  const folder = mkdtempSync(path.join(settings.data, 'restoring-'));
  try {
    step('Unpacking the backup');
    tar(['-xf', source, '-C', folder]);
    requireBackup(folder);
    await startDatabase(settings);
    if (await asking(settings, holdsAccounts))
      throw new Remedy(
        `${settings.data} holds accounts already. Nothing was changed. Restore into another folder (GATEPOST_DATA), or throw this one away first (“./gatepost reset”).`,
      );
    await putInPlace(settings, folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function putInPlace(settings: Settings, folder: string): Promise<void> {
  step('Reading the database');
  const anew = async () => {
    await dropDatabase(settings, settings.databaseName);
    await ensureDatabase(settings, settings.databaseName);
  };
  await anew();
  try {
    const dump = path.join(folder, DUMP);
    runPostgres(settings, 'pg_restore', [
      '--exit-on-error',
      '--no-owner',
      '--no-privileges', // of people of the other database, whom this one need not know
      `--dbname=${settings.databaseName}`,
      dump,
    ]);
  } catch (error) {
    await anew();
    throw error;
  }
  mkdirSync(filesOf(settings), { recursive: true });
  for (const name of readdirSync(path.join(folder, 'files')))
    renameSync(path.join(folder, 'files', name), path.join(filesOf(settings), name));
}

/** @throws Remedy when what was unpacked is no backup that this version understands */
function requireBackup(folder: string): void {
  const [about, dump] = [path.join(folder, ABOUT), path.join(folder, DUMP)];
  const parsed =
    existsSync(about) && existsSync(dump)
      ? v.safeParse(AboutSchema, JSON.parse(readFileSync(about, 'utf8')))
      : { success: false as const };
  if (!parsed.success) throw new Remedy('The file is no backup of Gate Post. Nothing was changed.');
  const unknown = parsed.output.migrations.filter((name) => !MIGRATION_NAMES.includes(name));
  if (unknown.length > 0)
    throw new Remedy(
      `The backup was made by a newer version of Gate Post (${unknown.at(-1)}). Nothing was changed. Restore it with that version.`,
    );
}

const filesOf = (settings: Settings) => path.join(settings.data, 'files');

async function asking<Answer>(settings: Settings, ask: (db: Db) => Promise<Answer>): Promise<Answer> {
  const db = connect(databaseUrl(settings), 1);
  try {
    return await ask(db);
  } finally {
    await db.destroy();
  }
}

async function holdsAccounts(db: Db): Promise<boolean> {
  return (await migrationsIn(db)).length > 0 && (await listAccounts(db)).length > 0;
}

/** Runs one of PostgreSQL's own programs on the database. */
function runPostgres(settings: Settings, name: string, args: readonly string[]): void {
  const run = spawnSync(path.join(requirePostgres(), name), args, {
    encoding: 'utf8',
    env: {
      ...{ ...process.env, PGHOST: '127.0.0.1', PGPORT: String(settings.databasePort), PGUSER: 'gatepost' },
      ...{ PGPASSWORD: readPassword(settings), PGDATABASE: settings.databaseName },
    },
  });
  if (run.status !== 0) throw new Remedy(`${name} failed:\n${run.stderr.trim()}`);
}

/** The program's “some files differ”: a file was brought or went while it was packed, which the dump does not speak of. */
const CHANGED_MEANWHILE = 1;

function tar(args: readonly string[]): void {
  const run = spawnSync('tar', args, { encoding: 'utf8' });
  if (run.status === 0 || (args[0] === '-cf' && run.status === CHANGED_MEANWHILE)) return;
  throw new Remedy(`The backup could not be packed or unpacked:\n${run.stderr.trim()}`);
}
