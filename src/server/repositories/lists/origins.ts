import type { Db } from '../../db/connection';

/** Who put an entry into a list, when, and from which search term. */
export type Origin = { by: string; at: string; from: string | null };

/** Origins of the entries of a list that were sent from here, by the key of their change; the newest of each. */
export async function loadOrigins(db: Db, accountId: number, listId: string): Promise<Map<string, Origin>> {
  const rows: { natural_key: string; by: string; at: Date; from_term: string | null }[] = await db('change')
    .join('person', 'person.person_id', 'change.drafted_by')
    .where({ account_id: accountId })
    .whereIn('kind', ['add negative', 'add placement'])
    .whereNot({ state: 'refused' })
    .whereRaw('(starts_with(natural_key, ?) or starts_with(natural_key, ?))', [
      `negative|list ${listId}|`,
      `placement|${listId}|`,
    ])
    .orderBy('change_id')
    .select('natural_key', 'person.name as by', 'drafted_at as at', 'from_term');
  return new Map(
    rows.map((row) => [row.natural_key, { by: row.by, at: row.at.toISOString(), from: row.from_term }]),
  );
}
