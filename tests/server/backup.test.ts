import { spawnSync } from 'node:child_process';
import { chmod, mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Knex } from 'knex';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { connect } from '@/server/db/connection';
import { backUp } from '../../scripts/steps/backup';
import { isPortTaken } from '../../scripts/steps/ports';
import { databaseUrl, readSettings, type Settings } from '../../scripts/steps/settings';
import { makeWorld, type World } from '../support/world';

let world: World;
let folder: string;
let file: string;
let settings: Settings;
beforeAll(async () => {
  world = await makeWorld();
  folder = await mkdtemp(path.join(tmpdir(), 'gatepost-backup-'));
  await chmod(folder, 0o711); // the database's own user passes through it
  file = path.join(folder, 'backup.tar');
  settings = { ...readSettings(), databaseName: 'gatepost_test' };
});
afterAll(async () => {
  gatepost('stop');
  await world.close();
  await rm(folder, { recursive: true });
});

let port: number;
/** Runs the command of the project on a data folder of its own. */
function gatepost(...args: string[]) {
  const env = { ...process.env, GATEPOST_DATA: path.join(folder, 'data'), GATEPOST_DB_PORT: String(port) };
  const { status, stdout, stderr } = spawnSync(path.resolve('gatepost'), args, { env, encoding: 'utf8' });
  return { status, said: stdout + stderr };
}

/** A port that nobody listens on, below those that connections are given. */
async function freePort(from = 14_181): Promise<number> {
  return (await isPortTaken(from)) ? freePort(from + 1) : from;
}

/** Each table with the number of its rows and a digest over them. */
async function contentOf(db: Knex): Promise<string[]> {
  const { rows: tables } = await db.raw<{ rows: { name: string }[] }>(
    `select format('%I.%I', schemaname, tablename) as name from pg_tables
      where schemaname not in ('pg_catalog', 'information_schema') order by 1`,
  );
  const content = [];
  for (const { name } of tables) {
    const { rows } = await db.raw<{ rows: { digest: string }[] }>(
      `select count(*) || ' ' || coalesce(md5(string_agg(t::text, '|' order by t::text)), '') as digest from ${name} t`,
    );
    content.push(`${name} ${rows[0]!.digest}`);
  }
  return content;
}

test('a backup is put into an empty folder: every row, and the files that were brought', async () => {
  port = await freePort();
  await world.load(
    'Day,Campaign,Ad group,Search term,Clicks,Cost\n2026-11-20,Hives,Starter,bee film,3,4.10\n',
  );
  // Somebody may read this database whom the other does not know.
  await world.db.raw('create role backup_reader; grant select on account to backup_reader');
  // The files of this world lie elsewhere than those of the cluster that its database is in.
  try {
    await backUp(settings, file, world.deps.files);
  } finally {
    await world.db.raw('drop owned by backup_reader; drop role backup_reader');
  }
  expect((await readdir(folder)).filter((name) => name !== 'data')).toEqual(['backup.tar']);

  const restored = gatepost('restore', file);
  expect(restored.said).toContain('Restored'); // what was said tells why not
  expect(restored.status).toBe(0);
  const there = {
    ...settings,
    data: path.join(folder, 'data'),
    databasePort: port,
    databaseName: 'gatepost',
  };
  const db = connect(databaseUrl(there));
  try {
    expect(await contentOf(db)).toEqual(await contentOf(world.db));
  } finally {
    await db.destroy();
  }
  const files = (await readdir(world.deps.files)).sort();
  expect(files.length).toBeGreaterThan(0);
  expect((await readdir(path.join(folder, 'data/files'))).sort()).toEqual(files);
  for (const name of files)
    expect(await readFile(path.join(folder, 'data/files', name))).toEqual(
      await readFile(path.join(world.deps.files, name)),
    );

  const again = gatepost('restore', file);
  expect(again).toMatchObject({ status: 1, said: expect.stringContaining('holds accounts already') });
}, 120_000);

test('what is no backup, and a name that is taken, change nothing and are told', async () => {
  await expect(backUp(settings, file)).rejects.toThrow('is there already');
  const other = path.join(folder, 'other.tar');
  await writeFile(other, 'no archive');
  gatepost('reset', '--yes');
  expect(gatepost('restore', other)).toMatchObject({
    status: 1,
    said: expect.stringContaining('could not be'),
  });
  expect(gatepost('restore', path.join(folder, 'none'))).toMatchObject({ status: 1 });
  expect(gatepost('backup')).toMatchObject({ status: 1, said: expect.stringContaining('Name the file') });
}, 60_000);
