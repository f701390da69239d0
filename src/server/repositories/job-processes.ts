import type { Db } from '../db/connection';

/** Seconds without a sign of life after which a worker counts as dead. */
const DEAD_AFTER = 10;

/** Says that these workers live. */
export async function beat(db: Db, workerIds: readonly string[]): Promise<void> {
  if (workerIds.length === 0) return;
  const rows = workerIds.map((id) => ({ process_id: id, seen_at: db.fn.now() }));
  await db('job_process').insert(rows).onConflict('process_id').merge();
}

export async function forgetWorkers(db: Db, workerIds: readonly string[]): Promise<void> {
  await db('job_process').whereIn('process_id', workerIds).delete();
}

/** Unlocks the jobs of workers that died. @returns the workers' ids */
export async function freeJobsOfTheDead(db: Db): Promise<string[]> {
  return db.transaction(async (trx) => {
    const dead: { process_id: string }[] = await trx('job_process')
      .whereRaw(`seen_at < now() - make_interval(secs => ?)`, [DEAD_AFTER])
      .delete()
      .returning('process_id');
    const ids = dead.map((row) => row.process_id);
    if (ids.length > 0) await trx.raw('select graphile_worker.force_unlock_workers(?::text[])', [ids]);
    return ids;
  });
}
