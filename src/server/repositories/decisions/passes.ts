import type { Db } from '../../db/connection';

/** One reading of an account's terms, from one report to the next. */
export type Pass = { id: number; openedAt: string; newestTermId: number };

/** The pass that people are in; undefined before the first report. */
export async function findPass(db: Db, accountId: number): Promise<Pass | undefined> {
  const row = await db('pass').where({ account_id: accountId }).orderBy('pass_id', 'desc').first();
  return row && { id: row.pass_id, openedAt: row.opened_at.toISOString(), newestTermId: row.newest_term_id };
}

/** The newest number that a term has; 0 where there is none. */
export async function findNewestTermId(db: Db, accountId: number): Promise<number> {
  const row = await db('term')
    .where({ account_id: accountId })
    .max<{ max: number | null }>('term_id as max')
    .first();
  return row?.max ?? 0;
}

/** A new report is there: the next pass begins, unless nobody has looked at anything in this one yet. */
export async function beginPass(db: Db, accountId: number, newestTermId: number): Promise<void> {
  await db.raw(
    `insert into pass (account_id, newest_term_id)
     select :account, :newest
      where not exists (
        select from (select pass_id from pass where account_id = :account order by pass_id desc limit 1) p
         where not exists (select from looked_at l where l.account_id = :account and l.pass_id = p.pass_id))`,
    { account: accountId, newest: newestTermId },
  );
}

/** Notes that terms were looked at in a pass. @returns how many were not before */
export async function insertLookedAt(
  db: Db,
  accountId: number,
  passId: number,
  termIds: readonly number[],
): Promise<number> {
  const { rowCount } = await db.raw<{ rowCount: number }>(
    `insert into looked_at (account_id, pass_id, term_id)
     select :account, :pass, term_id from unnest(:terms::integer[]) as given (term_id) on conflict do nothing`,
    { account: accountId, pass: passId, terms: termIds },
  );
  return rowCount;
}

export async function listLookedAt(db: Db, accountId: number, passId: number): Promise<number[]> {
  const { rows } = await db.raw<{ rows: { ids: number[] | null }[] }>(
    `select array_agg(term_id) as ids from looked_at where account_id = :account and pass_id = :pass`,
    { account: accountId, pass: passId },
  );
  return rows[0]?.ids ?? [];
}
