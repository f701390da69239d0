import type { Pack } from '@/contracts/packs';
import type { Db } from '../../db/connection';

/** A pack that somebody added to an account. */
export type OwnPack = { id: number; pack: Pack; addedBy: string };

/** The packs that people added to an account, by name. */
export async function listOwnPacks(db: Db, accountId: number): Promise<OwnPack[]> {
  const rows: { starter_pack_id: number; body: Pack; person: string }[] = await db('starter_pack as s')
    .join('person as p', 'p.person_id', 's.added_by')
    .where({ account_id: accountId })
    .orderBy('s.name')
    .select('starter_pack_id', 'body', 'p.name as person');
  return rows.map(({ starter_pack_id: id, body, person }) => ({ id, pack: body, addedBy: person }));
}

/** Adds a pack, in the stead of one of its name. @returns its id */
export async function putOwnPack(db: Db, accountId: number, personId: number, pack: Pack): Promise<number> {
  const [row] = await db('starter_pack')
    .insert({ account_id: accountId, name: pack.name, body: JSON.stringify(pack), added_by: personId })
    .onConflict(['account_id', 'name'])
    .merge()
    .returning<{ starter_pack_id: number }[]>('starter_pack_id');
  return row!.starter_pack_id;
}

export async function deleteOwnPack(db: Db, accountId: number, id: number): Promise<void> {
  await db('starter_pack').where({ account_id: accountId, starter_pack_id: id }).delete();
}
