import type { Db } from '../db/connection';

export type ProtectedTerm = { text: string; raw: string; note: string | null; by: string; at: string };

export async function listProtectedTerms(db: Db, accountId: number): Promise<ProtectedTerm[]> {
  const rows = await db('protected_term')
    .join('person', 'person.person_id', 'protected_term.person_id')
    .where({ account_id: accountId })
    .orderBy('text')
    .select('text', 'raw', 'note', 'person.name as by', 'created_at');
  return rows.map((row) => ({
    text: row.text,
    raw: row.raw,
    note: row.note,
    by: row.by,
    at: row.created_at.toISOString(),
  }));
}

/** @returns whether it was not protected before */
export async function insertProtectedTerm(
  db: Db,
  accountId: number,
  term: { text: string; raw: string; note: string | null; personId: number },
): Promise<boolean> {
  const row = {
    account_id: accountId,
    text: term.text,
    raw: term.raw,
    note: term.note,
    person_id: term.personId,
  };
  const inserted = await db('protected_term')
    .insert(row)
    .onConflict(['account_id', 'text'])
    .ignore()
    .returning('text');
  return inserted.length > 0;
}

/** @returns whether it was protected */
export async function deleteProtectedTerm(db: Db, accountId: number, text: string): Promise<boolean> {
  return (await db('protected_term').where({ account_id: accountId, text }).delete()) > 0;
}
