import type { Mention } from '@/contracts/mentions';
import { clockNow, type Db } from '../../db/connection';

export type NewMention = {
  to: number;
  by: number;
  kind: Mention['kind'];
  about: string;
  label: string;
  body: string;
  noteId?: number;
  commentId?: number;
};

/** @returns the id of the first */
export async function insertMentions(
  db: Db,
  accountId: number,
  mentions: readonly NewMention[],
): Promise<number | undefined> {
  if (mentions.length === 0) return undefined;
  const rows = mentions.map((one) => ({
    ...{ account_id: accountId, person_id: one.to, by_person: one.by, about_kind: one.kind },
    ...{ about: one.about, label: one.label, body: one.body },
    ...{ note_id: one.noteId ?? null, change_comment_id: one.commentId ?? null },
  }));
  const [first] = await db('mention').insert(rows).returning<{ mention_id: number }[]>('mention_id');
  return first!.mention_id;
}

/** What a person is told, the newest first; what was seen comes after what waits. */
export async function listMentions(
  db: Db,
  accountId: number,
  personId: number,
  most: number,
): Promise<Mention[]> {
  const rows = await db('mention')
    .join('person', 'person.person_id', 'mention.by_person')
    .where({ account_id: accountId, 'mention.person_id': personId })
    .orderByRaw('seen_at is not null, mention_id desc')
    .limit(most)
    .select('mention.*', 'person.name as by');
  return rows.map((row) => ({
    ...{ id: row.mention_id, by: row.by, at: row.at.toISOString(), isSeen: row.seen_at !== null },
    ...{ kind: row.about_kind, about: row.about, label: row.label, body: row.body },
  }));
}

/** Notes that a person has seen what he or she was told, or not after all. @returns whether it is there */
export async function setMentionSeen(
  db: Db,
  accountId: number,
  personId: number,
  { id, isSeen }: { id: number; isSeen: boolean },
): Promise<boolean> {
  const where = { account_id: accountId, person_id: personId, mention_id: id };
  return (
    (await db('mention')
      .where(where)
      .update({ seen_at: isSeen ? clockNow(db) : null })) > 0
  );
}

export type PassHolder = { id: number; to: number; toName: string; by: string; at: string };

/** Who was given the rest of a pass last. */
export async function findPassHolder(
  db: Db,
  accountId: number,
  passId: number,
): Promise<PassHolder | undefined> {
  const row = await db('mention')
    .join('person as told', 'told.person_id', 'mention.person_id')
    .join('person as teller', 'teller.person_id', 'mention.by_person')
    .where({ account_id: accountId, about_kind: 'pass', about: String(passId) })
    .orderBy('mention_id', 'desc')
    .first('mention_id', 'mention.person_id', 'told.name as told_name', 'teller.name as teller_name', 'at');
  return (
    row && {
      ...{ id: row.mention_id, to: row.person_id, toName: row.told_name },
      ...{ by: row.teller_name, at: row.at.toISOString() },
    }
  );
}

/** Takes it back that somebody was given the rest of a pass. @returns whether it was there */
export async function deletePassMention(db: Db, accountId: number, id: number): Promise<boolean> {
  const where = { account_id: accountId, mention_id: id, about_kind: 'pass' };
  return (await db('mention').where(where).delete()) > 0;
}
