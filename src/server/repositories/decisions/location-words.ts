import type { Db } from '../../db/connection';

/** served: we sell there; no location: the name of one, but an ordinary word in this account */
export type SaidOfLocation = 'served' | 'no location';
export type LocationWord = { text: string; said: SaidOfLocation };

/** What people of an account said of locations, in the order in which they said it. */
export async function listLocationWords(db: Db, accountId: number): Promise<LocationWord[]> {
  return db('location_word').where({ account_id: accountId }).orderBy('at').select('text', 'said');
}

/** Says something of a location, or (null) takes back what was said. @returns what was said before */
export async function setLocationWord(
  db: Db,
  accountId: number,
  personId: number,
  text: string,
  said: SaidOfLocation | null,
): Promise<SaidOfLocation | null> {
  const where = { account_id: accountId, text };
  const was = await db('location_word').where(where).first<LocationWord | undefined>('text', 'said');
  if (said === null) await db('location_word').where(where).delete();
  else
    await db('location_word')
      .insert({ ...where, said, person_id: personId })
      .onConflict(['account_id', 'text'])
      .merge();
  return was?.said ?? null;
}
