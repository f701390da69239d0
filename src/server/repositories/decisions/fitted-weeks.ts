import type { FittedWeek } from '@/core';
import { clockNow, type Db } from '../../db/connection';

/** What weeks were fitted to: facts by their version, and a text that tells targets and lags apart. */
export type FittedTo = { factsVersion: number; text: string };

/** The weeks of an account that were fitted to the same; null where there are none. */
export async function findFittedWeeks(
  db: Db,
  accountId: number,
  { factsVersion, text }: FittedTo,
): Promise<readonly FittedWeek[] | null> {
  const where = { account_id: accountId, facts_version: factsVersion, fitted_to: text };
  const row = await db('fitted_weeks').where(where).first('weeks');
  return row?.weeks ?? null;
}

/** Keeps weeks instead of those before. Where the facts are others by now, none are kept. */
export async function storeFittedWeeks(
  db: Db,
  accountId: number,
  { factsVersion, text }: FittedTo,
  weeks: readonly FittedWeek[],
): Promise<void> {
  await db.raw(
    `insert into fitted_weeks (account_id, facts_version, fitted_to, weeks, at)
     select account_id, facts_version, :text, cast(:weeks as jsonb), :now
       from account where account_id = :accountId and facts_version = :factsVersion
     on conflict (account_id) do update
        set facts_version = excluded.facts_version, fitted_to = excluded.fitted_to, weeks = excluded.weeks, at = excluded.at`,
    { accountId, factsVersion, text, weeks: JSON.stringify(weeks), now: clockNow(db) },
  );
}
