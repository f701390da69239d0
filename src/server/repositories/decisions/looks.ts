import type { Db } from '../../db/connection';

/**
 * Notes that a person looks at data up to a day. A look at the same data again changes nothing.
 * @returns the last day that was known at the look before, of other data; null at the first one
 */
export async function noteLook(
  db: Db,
  accountId: number,
  personId: number,
  dataTo: string,
): Promise<string | null> {
  const { rows } = await db.raw<{ rows: { before_to: string | null }[] }>(
    `insert into last_look as l (account_id, person_id, data_to) values (:account, :person, :to)
     on conflict (account_id, person_id) do update
        set before_to = case when l.data_to < excluded.data_to then l.data_to else l.before_to end,
            data_to = greatest(l.data_to, excluded.data_to)
     returning before_to`,
    { account: accountId, person: personId, to: dataTo },
  );
  return rows[0]!.before_to;
}
