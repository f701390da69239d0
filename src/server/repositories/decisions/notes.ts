import type { Db } from '../../db/connection';

/** A term by its key, a theme by its words, a list by its id. */
export type About = { kind: 'term' | 'theme' | 'list'; about: string };
export type Note = { id: number; body: string; by: string; at: string };

/** Notes on one thing, oldest first. */
export async function listNotes(db: Db, accountId: number, { kind, about }: About): Promise<Note[]> {
  const rows = await db('note')
    .join('person', 'person.person_id', 'note.person_id')
    .where({ account_id: accountId, about_kind: kind, about })
    .orderBy('note_id')
    .select('note_id', 'body', 'person.name as by', 'created_at');
  return rows.map((row) => ({
    id: row.note_id,
    body: row.body,
    by: row.by,
    at: row.created_at.toISOString(),
  }));
}

/** Writes a note down. The same again by the same person is the note that stands there: it may have been sent twice. */
export async function insertNote(
  db: Db,
  accountId: number,
  { kind, about }: About,
  note: { body: string; personId: number },
): Promise<{ noteId: number; isNew: boolean }> {
  const wanted = {
    ...{ account_id: accountId, about_kind: kind, about, body: note.body, person_id: note.personId },
  };
  const there = await db('note').where(wanted).first('note_id');
  if (there) return { noteId: there.note_id, isNew: false };
  const [row] = await db('note').insert(wanted).returning<{ note_id: number }[]>('note_id');
  return { noteId: row!.note_id, isNew: true };
}

/** @returns what the note said and was about; undefined when it is not there */
export async function deleteNote(
  db: Db,
  accountId: number,
  noteId: number,
): Promise<(About & { body: string }) | undefined> {
  const [row] = await db('note')
    .where({ account_id: accountId, note_id: noteId })
    .delete()
    .returning<{ about_kind: About['kind']; about: string; body: string }[]>(['about_kind', 'about', 'body']);
  return row && { kind: row.about_kind, about: row.about, body: row.body };
}

/** How many notes each term or theme of a kind has, by what they are about. */
export async function countNotes(
  db: Db,
  accountId: number,
  kind: About['kind'],
): Promise<ReadonlyMap<string, number>> {
  const rows = await db('note')
    .where({ account_id: accountId, about_kind: kind })
    .groupBy('about')
    .select<{ about: string; notes: string }[]>('about', db.raw('count(*) as notes'));
  return new Map(rows.map((row) => [row.about, Number(row.notes)]));
}
