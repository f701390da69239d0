import type { Db } from '../../db/connection';

/** A knot that somebody left as it was. */
export type LeftKnot = {
  key: string;
  /** how it was then */
  state: string;
  why: string;
  /** the day up to which it is left, YYYY-MM-DD; null: until it is otherwise */
  until: string | null;
  by: string;
  at: string;
};

export async function listLeftKnots(db: Db, accountId: number): Promise<LeftKnot[]> {
  const rows = await db('left_knot')
    .join('person', 'person.person_id', 'left_knot.person_id')
    .where({ account_id: accountId, kind: 'conflict' })
    .select('key', 'state', 'why', 'until', 'person.name as by', 'at');
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}

/** Leaves a knot; one that is left already is left for the new reason. */
export async function insertLeftKnot(
  db: Db,
  accountId: number,
  { personId, ...knot }: { key: string; state: string; why: string; until: string | null; personId: number },
): Promise<void> {
  await db('left_knot')
    .insert({ account_id: accountId, kind: 'conflict', person_id: personId, ...knot })
    .onConflict(['account_id', 'kind', 'key'])
    .merge();
}

/** @returns how it had been left; undefined where it was not */
export async function deleteLeftKnot(
  db: Db,
  accountId: number,
  key: string,
): Promise<{ why: string; until: string | null } | undefined> {
  const [was] = await db('left_knot')
    .where({ account_id: accountId, kind: 'conflict', key })
    .delete()
    .returning(['why', 'until']);
  return was;
}
