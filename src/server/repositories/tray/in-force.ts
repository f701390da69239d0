import type { Change } from '@/core';
import type { Db } from '../../db/connection';
import type { Before } from './before';

/** A change that is in force, or was until somebody took it back. */
export type InForce = {
  id: number;
  setId: number;
  change: Change;
  why: string | null;
  state: 'there' | 'said';
  sentDay: string;
  before: Before | null;
  /** the change that it takes back */
  undoes: number | null;
  /** the day on which the change was sent that takes it back */
  undoneDay: string | null;
};

/** Changes that were carried out, in the order in which they were sent. */
export async function loadInForce(db: Db, accountId: number): Promise<InForce[]> {
  const { rows } = await db.raw<{ rows: InForce[] }>(
    `with carried_out as (
       select c.change_id, c.change_set_id, c.body, c.why, c.state, c.before, c.undoes, s.sent_day
         from change c join change_set s using (account_id, change_set_id)
        where c.account_id = :account and c.state in ('there', 'said') and s.sent_day is not null
     )
     select c.change_id as id, c.change_set_id as "setId", c.body as change, c.why, c.state, c.sent_day as "sentDay", c.before, c.undoes,
            u.undone_day as "undoneDay"
       from carried_out c
       left join (select undoes, min(sent_day) as undone_day from carried_out where undoes is not null group by undoes) u
         on u.undoes = c.change_id
      order by c.sent_day, c.change_id`,
    { account: accountId },
  );
  return rows;
}
