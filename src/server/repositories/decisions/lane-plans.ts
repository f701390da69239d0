import type { LanePlan } from '@/contracts/lanes';
import type { Db } from '../../db/connection';

export type StoredLanePlan = LanePlan & { id: number };

/** Lane plans of an account, by name. */
export async function listLanePlans(db: Db, accountId: number): Promise<StoredLanePlan[]> {
  const rows: { lane_plan_id: number; name: string; tiers: LanePlan['tiers'] }[] = await db('lane_plan')
    .where({ account_id: accountId })
    .orderBy('name')
    .select('lane_plan_id', 'name', 'tiers');
  return rows.map(({ lane_plan_id: id, name, tiers }) => ({ id, name, tiers }));
}

/** @returns the id that it has from now on */
export async function insertLanePlan(db: Db, accountId: number, { name, tiers }: LanePlan): Promise<number> {
  const [made] = await db('lane_plan')
    .insert({ account_id: accountId, name, tiers: JSON.stringify(tiers) })
    .returning<{ lane_plan_id: number }[]>('lane_plan_id');
  return made!.lane_plan_id;
}

export async function updateLanePlan(
  db: Db,
  accountId: number,
  id: number,
  { name, tiers }: LanePlan,
): Promise<void> {
  await db('lane_plan')
    .where({ account_id: accountId, lane_plan_id: id })
    .update({ name, tiers: JSON.stringify(tiers) });
}

export async function deleteLanePlan(db: Db, accountId: number, id: number): Promise<void> {
  await db('lane_plan').where({ account_id: accountId, lane_plan_id: id }).delete();
}
