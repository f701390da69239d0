import type { Db } from '../../db/connection';

/** neutral: never shown among the words again; location: names one */
export type Tag = 'neutral' | 'location';
export type WordTag = { text: string; tag: Tag; by: string; at: string };

export async function listWordTags(db: Db, accountId: number): Promise<WordTag[]> {
  const rows = await db('word_tag')
    .join('person', 'person.person_id', 'word_tag.person_id')
    .where({ account_id: accountId })
    .orderBy('text')
    .select('text', 'tag', 'person.name as by', 'created_at');
  return rows.map((row) => ({
    text: row.text,
    tag: row.tag,
    by: row.by,
    at: row.created_at.toISOString(),
  }));
}

/** Tags an n-gram, or (null) takes its tag away. @returns the tag it had */
export async function setWordTag(
  db: Db,
  accountId: number,
  text: string,
  { tag, personId }: { tag: Tag | null; personId: number },
): Promise<Tag | null> {
  const where = { account_id: accountId, text };
  const was = await db('word_tag').where(where).first<{ tag: Tag } | undefined>('tag');
  if (tag === null) await db('word_tag').where(where).delete();
  else {
    await db('word_tag')
      .insert({ ...where, tag, person_id: personId })
      .onConflict(['account_id', 'text'])
      .merge();
  }
  return was?.tag ?? null;
}
