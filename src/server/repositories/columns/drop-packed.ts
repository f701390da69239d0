import type { Db } from '../../db/connection';

/**
 * Columns are kept beside the rows that they were read from: the facts of a day in one piece, and so many terms in one piece.
 * What changes facts or terms drops the pieces that it touches, in its own transaction; they are packed anew behind it. So
 * a piece that is there is right, and one that is missing only costs time.
 */

/** Drops the days that a transaction changes facts of. The account must be locked. */
export async function dropPackedDays(
  trx: Db,
  accountId: number,
  days: { from: string; to: string },
): Promise<void> {
  await trx('packed_day').where({ account_id: accountId }).whereBetween('day', [days.from, days.to]).delete();
}

/** Drops all, where terms change that were there before. The account must be locked. */
export async function dropAllPacked(trx: Db, accountId: number): Promise<void> {
  for (const table of ['packed_day', 'packed_terms'])
    await trx(table).where({ account_id: accountId }).delete();
}
