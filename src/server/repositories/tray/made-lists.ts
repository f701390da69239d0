import type { Db } from '../../db/connection';
import { changes, toChange, type StoredChange } from './changes';

/** The changes that made lists, by the keys that the `new:` ids of the lists carry. */
export async function loadMakers(
  db: Db,
  accountId: number,
  keys: readonly string[],
): Promise<Map<string, StoredChange>> {
  if (keys.length === 0) return new Map();
  const rows = await changes(db, accountId).where({ kind: 'make list' }).whereIn('key', keys);
  return new Map(rows.map(toChange).map((maker) => [maker.key, maker]));
}

/**
 * Lists that bore a `new:` id get their own: in every change that names them. Such an id is a key, so nothing else holds it,
 * and a change names one list.
 * @param adopted `new:` id → id of the list
 */
export async function renameLists(
  db: Db,
  accountId: number,
  adopted: ReadonlyMap<string, string>,
): Promise<void> {
  if (adopted.size === 0) return;
  await db.raw(
    `update change c
        set body = cast(replace(c.body::text, '"' || a.new_id || '"', '"' || a.list_id || '"') as jsonb),
            natural_key = replace(c.natural_key, a.new_id, a.list_id)
       from unnest(cast(:newIds as text[]), cast(:listIds as text[])) as a (new_id, list_id)
      where c.account_id = :account and strpos(c.natural_key, a.new_id) > 0`,
    { account: accountId, newIds: [...adopted.keys()], listIds: [...adopted.values()] },
  );
}
