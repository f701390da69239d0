import type { Knex } from 'knex';
import type { Task } from '../use-cases/deps';

/**
 * Adds a task to the queue, within the transaction that it belongs to. A task that waits for the same thing is
 * brought forward instead of added twice.
 */
export async function enqueue(db: Knex, task: Task): Promise<void> {
  const { name, ...payload } = task;
  await db.raw(`select graphile_worker.add_job(?, ?::json, job_key := ?, max_attempts := 25)`, [
    name,
    JSON.stringify(payload),
    [name, ...Object.values(payload)].join(' '),
  ]);
}
