import type { Db } from '../../db/connection';

/** What a person knew at the look before. */
export type LookBefore = {
  /** the last day with data; null at the first look */
  dataTo: string | null;
  /** the words at fault; null where nobody noted them */
  words: readonly string[] | null;
};

/**
 * Notes that a person looks at data up to a day, and the words at fault by then. A look at the same data again changes nothing.
 * @returns what was known at the look before, of other data
 */
export async function noteLook(
  db: Db,
  accountId: number,
  personId: number,
  { dataTo, words }: { dataTo: string; words: readonly string[] },
): Promise<LookBefore> {
  const { rows } = await db.raw<{ rows: { before_to: string | null; words_before: string[] | null }[] }>(
    `insert into last_look as l (account_id, person_id, data_to, words)
     values (:account, :person, :to, cast(:words as text[]))
     on conflict (account_id, person_id) do update
        set before_to = case when l.data_to < excluded.data_to then l.data_to else l.before_to end,
            words_before = case when l.data_to < excluded.data_to then l.words else l.words_before end,
            words = case when l.data_to < excluded.data_to then excluded.words else l.words end,
            data_to = greatest(l.data_to, excluded.data_to)
     returning before_to, words_before`,
    { account: accountId, person: personId, to: dataTo, words: [...words] },
  );
  return { dataTo: rows[0]!.before_to, words: rows[0]!.words_before };
}
