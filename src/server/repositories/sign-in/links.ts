import type { Db } from '../../db/connection';

export type Link = { personId: number; name: string; endsAt: Date; isUsed: boolean };

export async function insertLink(
  db: Db,
  link: { digest: string; personId: number; madeBy: number | null; endsAt: Date },
): Promise<void> {
  await db('sign_in_link').insert({
    ...{ token_digest: link.digest, person_id: link.personId, made_by: link.madeBy, ends_at: link.endsAt },
  });
}

/** The link of a digest, locked until the transaction ends. */
export async function lockLink(db: Db, digest: string): Promise<Link | undefined> {
  const row: { person_id: number; name: string; ends_at: Date; used_at: Date | null } | undefined = await db(
    'sign_in_link',
  )
    .join('person', 'person.person_id', 'sign_in_link.person_id')
    .where({ token_digest: digest })
    .forUpdate('sign_in_link')
    .first('sign_in_link.person_id', 'name', 'ends_at', 'used_at');
  return (
    row && { personId: row.person_id, name: row.name, endsAt: row.ends_at, isUsed: row.used_at !== null }
  );
}

/** All links of a person count as used, so that none of them leads anywhere any more. */
export async function useLinksOf(db: Db, personId: number, at: Date): Promise<void> {
  await db('sign_in_link').where({ person_id: personId, used_at: null }).update({ used_at: at });
}
