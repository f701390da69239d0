import type { Db } from '../../db/connection';

/** The name of a list of the mirror; undefined where it is gone, or not made yet. */
export async function findListName(db: Db, accountId: number, listId: string): Promise<string | undefined> {
  if (!/^\d{1,9}$/.test(listId)) return undefined;
  const row = await db('shared_list')
    .where({ account_id: accountId, list_id: Number(listId) })
    .first('name');
  return row?.name;
}
