import type { Db } from '../../db/connection';

/** Tries in vain with an address since somebody signed in by it. */
export type Failures = { tries: number; lockedUntil: Date | null };

/** Lets only one try with an address go on at a time, until the transaction ends. */
export async function lockAddress(db: Db, email: string): Promise<void> {
  await db.raw(`select pg_advisory_xact_lock(hashtext('sign in'), hashtext(?))`, [email]);
}

export async function findFailures(db: Db, email: string): Promise<Failures> {
  const row: { tries: number; locked_until: Date | null } | undefined = await db('sign_in_failure')
    .where({ email })
    .first('tries', 'locked_until');
  return { tries: row?.tries ?? 0, lockedUntil: row?.locked_until ?? null };
}

export async function setFailures(
  db: Db,
  email: string,
  at: Date,
  { tries, lockedUntil }: Failures,
): Promise<void> {
  await db('sign_in_failure')
    .insert({ email, tries, last_at: at, locked_until: lockedUntil })
    .onConflict('email')
    .merge();
}

export async function forgetFailures(db: Db, email: string): Promise<void> {
  await db('sign_in_failure').where({ email }).delete();
}
