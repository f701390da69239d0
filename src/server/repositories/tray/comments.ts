import type { Db } from '../../db/connection';

/** What a person said of a change. */
export type Comment = { id: number; by: string; text: string };

/** The comments of a row of `change`, as JSON; null where there are none. */
export const COMMENTS = `
  select json_agg(json_build_object('id', cc.change_comment_id, 'by', cp.name, 'text', cc.body)
                  order by cc.change_comment_id)
    from change_comment cc join person cp on cp.person_id = cc.person_id
   where cc.account_id = change.account_id and cc.change_id = change.change_id`;

/** Adds a comment to a change of the draft. @returns its id; undefined where the change is not there any more */
export async function insertComment(
  db: Db,
  accountId: number,
  { changeId, personId, text }: { changeId: number; personId: number; text: string },
): Promise<number | undefined> {
  const { rows } = await db.raw<{ rows: { id: number }[] }>(
    `insert into change_comment (account_id, change_id, person_id, body)
     select c.account_id, c.change_id, :person, :text
       from change c join change_set s using (account_id, change_set_id)
      where c.account_id = :account and c.change_id = :change and s.state = 'draft'
     returning change_comment_id as id`,
    { account: accountId, change: changeId, person: personId, text },
  );
  return rows[0]?.id;
}

/** Takes a comment of one's own away. @returns whether it was there */
export async function deleteComment(
  db: Db,
  accountId: number,
  commentId: number,
  personId: number,
): Promise<boolean> {
  const where = { account_id: accountId, change_comment_id: commentId, person_id: personId };
  return (await db('change_comment').where(where).delete()) > 0;
}

/** What was said of changes goes on with those that are drafted in their stead. @param pairs of old and new ids */
export async function copyComments(
  db: Db,
  accountId: number,
  pairs: readonly { from: number; to: number }[],
): Promise<void> {
  if (pairs.length === 0) return;
  await db.raw(
    `insert into change_comment (account_id, change_id, person_id, at, body)
     select c.account_id, p.new_id, c.person_id, c.at, c.body
       from change_comment c
       join unnest(cast(:from as integer[]), cast(:to as integer[])) as p (old_id, new_id) on p.old_id = c.change_id
      where c.account_id = :account
      order by c.change_comment_id`,
    { account: accountId, from: pairs.map(({ from }) => from), to: pairs.map(({ to }) => to) },
  );
}
