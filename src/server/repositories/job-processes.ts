import type { Db } from '../db/connection';

/** Seconds without a sign of life after which a process counts as dead. */
const DEAD_AFTER = 10;

/** Says that the pool of workers of a process lives. */
export async function beat(db: Db, poolId: string): Promise<void> {
  await db('job_process')
    .insert({ process_id: poolId, seen_at: db.fn.now() })
    .onConflict('process_id')
    .merge();
}

/**
 * Since when no process was heard of.
 * @returns null while one is; empty where none ever was, or all ended as they were told
 */
export async function silentSince(db: Db): Promise<string | null> {
  const { last, is_silent } = (await db('job_process')
    .max('seen_at as last')
    .select(
      db.raw('coalesce(max(seen_at) < now() - make_interval(secs => ?), true) as is_silent', [DEAD_AFTER]),
    )
    .first()) as { last: Date | null; is_silent: boolean };
  return is_silent ? (last?.toISOString() ?? '') : null;
}

export async function forgetPool(db: Db, poolId: string): Promise<void> {
  await db('job_process').where({ process_id: poolId }).delete();
}

/**
 * Unlocks jobs that are held by a pool which has not said for a while that it lives, or never did.
 * @returns the ids of those pools
 */
export async function freeJobsOfTheDead(db: Db): Promise<string[]> {
  return db.transaction(async (trx) => {
    await trx('job_process').whereRaw('seen_at < now() - make_interval(secs => ?)', [DEAD_AFTER]).delete();
    const dead: { locked_by: string }[] = await trx('graphile_worker.jobs')
      .distinct('locked_by')
      .whereNotNull('locked_by')
      .whereNotIn('locked_by', trx('job_process').select('process_id'))
      .whereRaw('locked_at < now() - make_interval(secs => ?)', [DEAD_AFTER]);
    const ids = dead.map((row) => row.locked_by);
    if (ids.length > 0) await trx.raw('select graphile_worker.force_unlock_workers(?::text[])', [ids]);
    return ids;
  });
}
