import type { Db } from '../../db/connection';

/** neutral: never shown among the words again; place: names a place */
export type Mark = 'neutral' | 'place';
export type WordMark = { text: string; mark: Mark; by: string; at: string };

export async function listWordMarks(db: Db, accountId: number): Promise<WordMark[]> {
  const rows = await db('word_mark')
    .join('person', 'person.person_id', 'word_mark.person_id')
    .where({ account_id: accountId })
    .orderBy('text')
    .select('text', 'mark', 'person.name as by', 'created_at');
  return rows.map((row) => ({
    text: row.text,
    mark: row.mark,
    by: row.by,
    at: row.created_at.toISOString(),
  }));
}

/** Marks a run of words, or (null) takes its mark away. @returns the mark it had */
export async function setWordMark(
  db: Db,
  accountId: number,
  text: string,
  { mark, personId }: { mark: Mark | null; personId: number },
): Promise<Mark | null> {
  const where = { account_id: accountId, text };
  const was = await db('word_mark').where(where).first<{ mark: Mark } | undefined>('mark');
  if (mark === null) await db('word_mark').where(where).delete();
  else {
    await db('word_mark')
      .insert({ ...where, mark, person_id: personId })
      .onConflict(['account_id', 'text'])
      .merge();
  }
  return was?.mark ?? null;
}
