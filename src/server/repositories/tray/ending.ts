import type { Change } from '@/core';
import type { Db } from '../../db/connection';

/** A stop that is in force and has an end. */
export type Ending = { id: number; change: Change; endsOn: string; draftedById: number };

/** Stops that end up to a day and that nothing takes back yet, in the order of their ends. */
export async function listEnding(db: Db, accountId: number, upTo: string): Promise<Ending[]> {
  const { rows } = await db.raw<{ rows: Ending[] }>(
    `select change_id as id, body as change, ends_on as "endsOn", drafted_by as "draftedById"
       from change c
      where account_id = :account and ends_on <= :upTo and state in ('there', 'said')
        and not exists (select from change u
                         where u.account_id = c.account_id and u.undoes = c.change_id and u.state <> 'refused')
      order by ends_on, change_id`,
    { account: accountId, upTo },
  );
  return rows;
}

/** Sets the ends of changes of the draft. */
export async function setEnds(
  db: Db,
  accountId: number,
  changeIds: readonly number[],
  endsOn: string | null,
): Promise<void> {
  const draft = db('change_set').where({ account_id: accountId, state: 'draft' }).select('change_set_id');
  await db('change')
    .where({ account_id: accountId })
    .whereIn('change_id', [...changeIds])
    .whereIn('change_set_id', draft)
    .update({ ends_on: endsOn });
}
