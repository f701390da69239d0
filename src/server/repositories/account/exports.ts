import type { ExportsAnswer } from '@/contracts/exports';
import type { Db } from '../../db/connection';

export async function insertExport(
  db: Db,
  accountId: number,
  { personId, name }: { personId: number; name: string },
): Promise<void> {
  await db('export').insert({ account_id: accountId, person_id: personId, name });
}

/** @returns as many as wanted, the newest first */
export async function listExports(db: Db, accountId: number, most: number): Promise<ExportsAnswer['lines']> {
  const rows: { export_id: string; name: string; by: string; at: Date }[] = await db('export')
    .join('person', 'person.person_id', 'export.person_id')
    .where({ account_id: accountId })
    .orderBy('export_id', 'desc')
    .limit(most)
    .select('export_id', 'export.name', 'person.name as by', 'at');
  return rows.map(({ export_id, name, by, at }) => ({
    ...{ id: String(export_id), name, by, at: at.toISOString() },
  }));
}
