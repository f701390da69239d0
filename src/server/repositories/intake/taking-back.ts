import { extent } from 'd3-array';
import type { Db } from '../../db/connection';
import { dropPackedDays } from '../columns/drop-packed';

/** The newest load that replaced facts of another one, if any. */
export async function findReplacer(
  db: Db,
  accountId: number,
  reportFileId: number,
): Promise<string | undefined> {
  const row = await db('replaced_fact as r')
    .join('report_file as f', function () {
      this.on('f.account_id', 'r.account_id').andOn('f.report_file_id', 'r.report_file_id');
    })
    .where({ 'r.account_id': accountId, 'r.was_of': reportFileId })
    .orderBy('r.report_file_id', 'desc')
    .first<{ name: string } | undefined>('f.name');
  return row?.name;
}

/**
 * Takes the facts of a load away and puts back what it had replaced.
 * @param days that the load reached over
 */
export async function takeFactsBack(
  db: Db,
  accountId: number,
  reportFileId: number,
  days: { from: string; to: string },
): Promise<{ removed: number; restored: number }> {
  const replaced: string[] = await db('replaced_fact')
    .where({ account_id: accountId, report_file_id: reportFileId })
    .distinct()
    .pluck('day');
  const [from, to] = extent([days.from, days.to, ...replaced]) as [string, string];
  await dropPackedDays(db, accountId, { from, to });
  const removed = await db('term_day')
    .where({ account_id: accountId, report_file_id: reportFileId })
    .whereBetween('day', [days.from, days.to])
    .delete();
  const restored = await db.raw<{ rowCount: number }>(
    `with back as (
       delete from replaced_fact where account_id = :account and report_file_id = :file returning *
     )
     insert into term_day (account_id, day, ad_group_id, keyword_id, term_id,
                           impressions, clicks, cost_micros, conversions, value_micros, report_file_id)
     select account_id, day, ad_group_id, keyword_id, term_id,
            impressions, clicks, cost_micros, conversions, value_micros, was_of from back`,
    { account: accountId, file: reportFileId },
  );
  return { removed, restored: restored.rowCount };
}
