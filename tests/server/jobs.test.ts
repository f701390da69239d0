import { spawn, type ChildProcess } from 'node:child_process';
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import { askForLoad, viewIntake } from '@/server/use-cases/intake/take-in';
import { feelWholePulse } from '@/server/use-cases/account/describe-account';
import { makeWorld, type World } from '../support/world';

let world: World;
const children: ChildProcess[] = [];
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(async () => {
  for (const child of children) child.kill('SIGKILL');
  await world.close();
});

/** A job process as the application starts it. */
function startJobs(): ChildProcess {
  const child = spawn(process.execPath, ['--import', 'tsx', 'src/server/jobs/main.ts'], {
    env: {
      ...process.env,
      GATEPOST_DATABASE_URL: world.url,
      GATEPOST_PLATFORM_URL: world.platformUrl,
      GATEPOST_DATA: world.deps.files.replace(/\/files$/, ''),
    },
    stdio: 'ignore',
  });
  children.push(child);
  return child;
}

/**
 * Kills the processes, and forgets what they left: a job that was broken off several times waits for minutes until it is tried again,
 * and holds up its queue.
 */
async function startAnew() {
  for (const child of children.splice(0)) child.kill('SIGKILL');
  await world.db.raw(
    'delete from graphile_worker._private_jobs; delete from graphile_worker._private_job_queues',
  );
}

const until = (isSo: () => Promise<boolean>) => vi.waitUntil(isSo, { timeout: 100_000, interval: 25 });

test('a load whose process is killed in the middle is absent, and the next process finishes it once', async () => {
  const rows = Array.from(
    { length: 60_000 },
    (_, i) => `term ${i % 9_000},Hives,Starter,2025-0${1 + (i % 9)}-1${i % 10},1,1.00`,
  );
  const [id] = await world.bring(`Search term,Campaign,Ad group,Day,Clicks,Cost\n${rows.join('\n')}`);
  await askForLoad(world.deps, world.slug, id!, {});
  const stored = () => world.db('term_day').where('day', '<', '2026-01-01').sum('clicks as clicks').first();
  const current = async () => (await viewIntake(world.deps, world.slug)).files.find((f) => f.id === id)!;

  const first = startJobs();
  await until(async () => (await current()).rowsRead > 0);
  first.kill('SIGKILL');
  await until(async () => {
    const { rows: open } = await world.db.raw(
      `select 1 from pg_stat_activity where datname = current_database() and state like 'idle in transaction%'`,
    );
    return open.length === 0;
  });
  expect((await current()).state).toBe('loading');
  expect(await stored()).toEqual({ clicks: null });

  startJobs();
  await until(async () => (await current()).state === 'loaded');
  expect(await stored()).toEqual({ clicks: 60_000 });
}, 300_000);

test('whether a job process is heard of is told, and since when none is', async () => {
  const felt = () => feelWholePulse(world.deps, world.slug).then((pulse) => pulse.jobsSilentSince);
  for (const child of children.splice(0)) child.kill('SIGKILL');
  await world.db('job_process').delete();
  expect(await felt()).toBe('');
  startJobs();
  await until(async () => (await felt()) === null);
  children.splice(0).forEach((child) => child.kill('SIGKILL'));
  await world.db('job_process').update({ seen_at: new Date('2026-11-20T09:05:00Z') });
  expect(await felt()).toBe('2026-11-20T09:05:00.000Z');
});

test('a database that breaks off in the middle of a load leaves nothing, and the load is finished once', async () => {
  const rows = Array.from(
    { length: 60_000 },
    (_, i) => `broken ${i % 9_000},Hives,Starter,2024-0${1 + (i % 9)}-1${i % 10},1`,
  );
  const [id] = await world.bring(`Search term,Campaign,Ad group,Day,Clicks\n${rows.join('\n')}`);
  await askForLoad(world.deps, world.slug, id!, {});
  const stored = () => world.db('term_day').where('day', '<', '2025-01-01').sum('clicks as clicks').first();
  const current = async () => (await viewIntake(world.deps, world.slug)).files.find((f) => f.id === id)!;
  startJobs();
  await until(async () => (await current()).rowsRead > 0);
  // What a restart does to those who are connected, all of them but this test.
  await world.db.raw(
    `select pg_terminate_backend(pid) from pg_stat_activity
      where datname = current_database() and pid <> pg_backend_pid()`,
  );
  await until(async () => (await current()).state === 'loaded');
  expect(await stored()).toEqual({ clicks: 60_000 });
  expect((await current()).outcome).toMatchObject({ rows: 60_000, rejected: 0 });
}, 300_000);

test('a job that can not be handed back ends no process, and is done once more', async () => {
  await startAnew();
  await world.db.raw(`
    create sequence public.handed_back;
    create function public.fail_once() returns trigger language plpgsql as
      $$ begin if nextval('public.handed_back') = 1 then raise 'the database breaks off'; end if; return old; end $$;
    create trigger fail_once before delete on graphile_worker._private_jobs
      for each row execute function public.fail_once()`);
  try {
    const child = startJobs();
    await world.deps.enqueue(world.db, { name: 'note-knots', accountId: world.accountId });
    await until(async () => (await world.db.raw('select 1 from graphile_worker.jobs')).rows.length === 0);
    const { rows: tries } = await world.db.raw<{ rows: { last_value: number }[] }>(
      `select last_value from public.handed_back`,
    );
    expect(tries[0]!.last_value).toBeGreaterThan(1);
    expect([child.exitCode, child.signalCode]).toEqual([null, null]);
  } finally {
    await world.db.raw('drop function public.fail_once cascade; drop sequence public.handed_back');
  }
}, 300_000);

test('notes of knots are made one at a time, so that the work of people finds a free hand', async () => {
  await startAnew();
  const { enqueue } = world.deps;
  for (const accountId of [1, 2]) await enqueue(world.db, { name: 'note-knots', accountId });
  await enqueue(world.db, { name: 'load-report', accountId: 1, reportFileId: 1 });
  const { rows } = await world.db.raw(
    'select task_identifier as task, queue_name as queue from graphile_worker.jobs order by id',
  );
  const note = { task: 'note-knots', queue: 'note-knots' };
  expect(rows).toEqual([note, note, { task: 'load-report', queue: null }]);
  await startAnew();
});
