import type { Db } from '../../db/connection';

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

/** Protects terms. @returns the texts that were not protected before */
export async function insertProtectedTerms(
  db: Db,
  accountId: number,
  terms: readonly { key: string; raw: string }[],
  { note, personId }: { note: string | null; personId: number },
): Promise<string[]> {
  const inserted: string[] = [];
  for (let at = 0; at < terms.length; at += 5_000) {
    const rows = terms.slice(at, at + 5_000).map(({ key, raw }) => ({
      ...{ account_id: accountId, text: key, raw, note, person_id: personId },
    }));
    const written: { text: string }[] = await db('protected_term')
      .insert(rows)
      .onConflict(['account_id', 'text'])
      .ignore()
      .returning('text');
    inserted.push(...written.map((row) => row.text));
  }
  return inserted;
}

/** @returns the texts that were protected */
export async function deleteProtectedTerms(
  db: Db,
  accountId: number,
  texts: readonly string[],
): Promise<string[]> {
  const gone: { text: string }[] = await db('protected_term')
    .where({ account_id: accountId })
    .whereIn('text', [...texts])
    .delete()
    .returning('text');
  return gone.map((row) => row.text);
}
