import type { Standing } from '@/core';
import type { Db } from '../../db/connection';

/** An element, and the days on which it stood. */
export type StandingRow = Standing & {
  id: number;
  /** '0001-01-01' where it stood before Gate Post knew the account */
  from: string;
  /** the first day on which it did not stand any more */
  until: string | null;
};

const standing = (db: Db, accountId: number) =>
  db('standing').where({ account_id: accountId }).orderBy('standing_id').select();

const toRow = (row: Record<string, unknown>): StandingRow => ({
  ...({ kind: row.kind, ...(row.body as object) } as Standing),
  ...{ id: Number(row.standing_id), from: row.began_on as string, until: row.ended_on as string | null },
});

/** What stood at the end of a day. */
export async function loadStandingOn(db: Db, accountId: number, day: string): Promise<StandingRow[]> {
  const then = standing(db, accountId)
    .where('began_on', '<=', day)
    .where((either) => void either.whereNull('ended_on').orWhere('ended_on', '>', day));
  return (await then).map(toRow);
}

/** The day on which Gate Post came to know the account: what was taken away before is not known. */
export async function findFirstDay(db: Db, accountId: number): Promise<string> {
  const { rows } = await db.raw<{ rows: { day: string }[] }>(
    `select least((created_at at time zone 'UTC')::date, platform_day) as day from account where account_id = ?`,
    [accountId],
  );
  return rows[0]!.day;
}

/** What stands now. */
export async function loadStandingNow(db: Db, accountId: number): Promise<StandingRow[]> {
  return (await standing(db, accountId).whereNull('ended_on')).map(toRow);
}
