import type { ReadDecisions, Reading } from '@/core';
import type { Db } from '../../db/connection';

/** The reading of a large file, or how far it has come. */
export type WholeReading = { decisions: ReadDecisions; rowsRead: number; reading: Reading | null };

export async function findWholeReading(
  db: Db,
  accountId: number,
  reportFileId: number,
): Promise<WholeReading | undefined> {
  return db('whole_reading')
    .where({ account_id: accountId, report_file_id: reportFileId })
    .first<WholeReading | undefined>('decisions', 'rows_read as rowsRead', 'reading');
}

/** Asks for a reading by these decisions; one by others is forgotten. */
export async function startWholeReading(
  db: Db,
  accountId: number,
  reportFileId: number,
  decisions: ReadDecisions,
): Promise<void> {
  await db('whole_reading')
    .insert({
      account_id: accountId,
      report_file_id: reportFileId,
      decisions: JSON.stringify(decisions),
    })
    .onConflict(['account_id', 'report_file_id'])
    .merge({ decisions: JSON.stringify(decisions), rows_read: 0, reading: null });
}

/** Notes how far a reading has come, and its end. @returns whether it is still asked for by these decisions */
export async function noteWholeReading(
  db: Db,
  accountId: number,
  reportFileId: number,
  decisions: ReadDecisions,
  progress: { rowsRead: number; reading?: Reading },
): Promise<boolean> {
  const touched = await db('whole_reading')
    .where({ account_id: accountId, report_file_id: reportFileId })
    .whereRaw('decisions = ?::jsonb', [JSON.stringify(decisions)])
    .update({
      rows_read: progress.rowsRead,
      ...(progress.reading && { reading: JSON.stringify(progress.reading) }),
    });
  return touched > 0;
}
