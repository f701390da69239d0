import type { Knex } from 'knex';
import type { Task } from '../use-cases/deps';

/** Nobody waits for these: of each queue one is done at a time, so that the work of people finds a free hand. */
const QUEUES: Partial<Record<Task['name'], string>> = {
  'note-knots': 'note-knots',
  'run-rules': 'rules',
  'fit-weeks': 'rules',
  'raise-alerts': 'rules',
};

/**
 * Adds a task to the queue, within the transaction that it belongs to. A task that waits for the same thing is
 * brought forward instead of added twice.
 * @param at when it is to be done; now where nothing is said
 */
export async function enqueue(db: Knex, task: Task, at?: Date): Promise<void> {
  const { name, ...payload } = task;
  await db.raw(
    `select graphile_worker.add_job(:name, cast(:payload as json), queue_name := :queue, job_key := :key, max_attempts := 25,
            run_at := coalesce(cast(:at as timestamptz), now()))`,
    {
      ...{ name, payload: JSON.stringify(payload), at: at?.toISOString() ?? null },
      queue: QUEUES[name] ?? null,
      key: [name, ...Object.values(payload)].join(' '),
    },
  );
}
