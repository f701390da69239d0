import { EventEmitter } from 'node:events';
import { setTimeout } from 'node:timers/promises';
import { sum } from 'd3';
import { run, runMigrations, type Job, type TaskList, type WorkerEvents } from 'graphile-worker';
import pg from 'pg';
import { createSnapshots } from '../compute/snapshots';
import { deleteOldLogs } from '../repositories/account/person-data';
import { logOf } from '../log';
import { OutsideTrouble } from '../outside';
import { beat, forgetPool, freeJobsOfTheDead } from '../repositories/job-processes';
import type { Deps } from '../use-cases/deps';
import { deliver } from '../use-cases/alerts/deliver';
import { raiseAlerts, raiseDaily } from '../use-cases/alerts/raise-alerts';
import { clearFiles } from '../use-cases/intake/clear-files';
import { fetchDaily } from '../use-cases/intake/fetch-report';
import { loadReport } from '../use-cases/intake/load-report';
import { readWholeReport } from '../use-cases/intake/read-upload';
import { takeBackLoad } from '../use-cases/intake/take-back-load';
import { fitWeeks } from '../use-cases/rules/fitted-weeks';
import { lookDaily, workByRules } from '../use-cases/rules/work-by-rules';
import { endAll } from '../use-cases/tray/end-dates';
import { noteKnots } from '../use-cases/untangle/knots/look-at-knots';
import { workOnSet } from '../use-cases/tray/work-on-set';

const log = logOf('jobs');
const BEAT_MS = 2_000;
/**
 * Before the day's work begins: bytes that are kept no longer go, reports of those accounts come that want the newest one each
 * day, stops whose end has come are taken back, rules go on with what yesterday's bounds left, and what was forgotten is told.
 */
const DAILY = [
  '5 0 * * * end-stops',
  '30 3 * * * clear-files',
  '40 3 * * * clear-logs',
  '0 5 * * * fetch-daily',
  '0 6 * * * look-daily',
  '30 6 * * * raise-daily',
].join('\n');

/** A job that can not be handed back ends the queue in an orderly way only where they are handed back in batches; else the process falls. */
const HANDS_BACK_IN_BATCHES = { completeJobBatchDelay: 0, failJobBatchDelay: 0 };

/** What a job is about: its payload holds ids alone. */
function aboutJob({ task_identifier: task, id, payload }: Pick<Job, 'task_identifier' | 'id' | 'payload'>) {
  const { accountId: account, personId: person, ...rest } = payload as Record<string, unknown>;
  return { job: id, task, account, person, ...rest };
}

/** The queue's own schema, made when missing. */
export function migrateQueue(url: string): Promise<void> {
  return runMigrations({ connectionString: url });
}

function taskList(deps: Deps): TaskList {
  return {
    'load-report': (payload) => {
      const { accountId, reportFileId } = payload as { accountId: number; reportFileId: number };
      return loadReport(deps, accountId, reportFileId);
    },
    'read-report': (payload) => {
      const { accountId, reportFileId } = payload as { accountId: number; reportFileId: number };
      return readWholeReport(deps, accountId, reportFileId);
    },
    'take-back-load': (payload) => {
      const asked = payload as { accountId: number; reportFileId: number; personId: number; undoes?: number };
      return takeBackLoad(deps, asked.accountId, asked.reportFileId, asked.personId, asked.undoes);
    },
    'fetch-daily': () => fetchDaily(deps),
    'look-daily': () => lookDaily(deps),
    'end-stops': () => endAll(deps),
    'clear-files': async () => {
      const files = await clearFiles(deps);
      if (files > 0) log.info({ files }, 'removed the bytes of old files');
    },
    'clear-logs': async () => {
      const lines = await deleteOldLogs(deps.db);
      if (lines > 0) log.info({ lines }, 'removed old lines of the logs');
    },
    'note-knots': (payload) => {
      // What is read for that is let go of afterwards.
      const once = { ...deps, snapshots: createSnapshots() };
      return noteKnots(once, (payload as { accountId: number }).accountId);
    },
    'run-rules': async (payload) => {
      const once = { ...deps, snapshots: createSnapshots() };
      const { accountId } = payload as { accountId: number };
      const done = await workByRules(once, accountId);
      if (sum(Object.values(done)) > 0) log.info({ account: accountId, ...done }, 'rules have looked');
    },
    'fit-weeks': (payload) => {
      const once = { ...deps, snapshots: createSnapshots() };
      return fitWeeks(once, (payload as { accountId: number }).accountId);
    },
    'raise-daily': () => raiseDaily(deps),
    'raise-alerts': async (payload) => {
      const { accountId } = payload as { accountId: number };
      const raised = await raiseAlerts({ ...deps, snapshots: createSnapshots() }, accountId);
      if (raised > 0) log.info({ account: accountId, raised }, 'alerts came up');
    },
    deliver: (payload) => {
      const { accountId, deliveryId } = payload as { accountId: number; deliveryId: number };
      return deliver(deps, accountId, deliveryId);
    },
    'send-change-set': (payload) => {
      const { accountId, changeSetId } = payload as { accountId: number; changeSetId: number };
      return workOnSet(deps, accountId, changeSetId);
    },
  };
}

/**
 * Starts working on jobs. A process that dies leaves its jobs locked; so each says that it lives, and frees the jobs
 * of those that have not done so for a while: the next finishes what they began. Where the database breaks off just as a
 * job is handed back, the queue ends; it is started again, and the job is done once more.
 */
export async function startWorker(deps: Deps, url: string): Promise<{ stop(): Promise<void> }> {
  const pool = new pg.Pool({ connectionString: url, max: 6 });
  pool.on('error', (error) => log.warn({ error }, 'a connection to the database broke'));
  pool.on('connect', (client) =>
    client.on('error', (error) => log.warn({ error }, 'a connection to the database broke')),
  );
  let poolId: string | undefined;
  const events = new EventEmitter() as WorkerEvents;
  events.on('pool:create', ({ workerPool }) => (poolId = workerPool.id)); // it is what the pool's jobs are locked by
  events.on('job:error', ({ job, error }) => {
    const level = error instanceof OutsideTrouble ? 'info' : 'error';
    log[level]({ ...aboutJob(job), attempts: job.attempts, error }, 'a job will be tried again');
  });
  events.on('job:success', ({ job }) => log.info(aboutJob(job), 'a job is done'));
  const startRunner = () =>
    run({
      preset: { worker: HANDS_BACK_IN_BATCHES },
      pgPool: pool,
      concurrency: 2,
      pollInterval: 1_000,
      noHandleSignals: true,
      crontab: DAILY,
      taskList: taskList(deps),
      events,
    });
  let runner = await startRunner();
  let isStopping = false;
  const keepRunning = async () => {
    await runner.promise.catch(() => undefined); // the queue has told why it ended
    while (!isStopping) {
      try {
        // What this pool still holds is another's to finish.
        if (poolId) await forgetPool(deps.db, poolId);
        poolId = undefined;
        runner = await startRunner();
        log.warn('the queue had ended, and is started again');
        if (isStopping) await runner.stop();
        await runner.promise;
      } catch (error) {
        log.warn({ error }, 'the queue ended, and will be started again');
        await setTimeout(BEAT_MS);
      }
    }
  };
  const ended = keepRunning();

  const live = async () => {
    if (poolId) await beat(deps.db, poolId);
    const freed = await freeJobsOfTheDead(deps.db);
    if (freed.length > 0) log.info({ freed }, 'took over the jobs of processes that died');
  };
  await live();
  const timer = setInterval(
    () => void live().catch((error: unknown) => log.warn({ error }, 'no heartbeat')),
    BEAT_MS,
  );
  return {
    async stop() {
      isStopping = true;
      clearInterval(timer);
      await runner.stop().catch(() => undefined); // it may have ended by itself just now
      await ended;
      if (poolId) await forgetPool(deps.db, poolId);
      await pool.end();
    },
  };
}
