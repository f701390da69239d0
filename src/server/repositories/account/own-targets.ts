import type { SeatsByName } from '@/contracts/account';
import type { Db } from '../../db/connection';

/** Targets that campaigns and product groups have of their own (rules 7.3). Ids are ours, as strings. */
export type OwnTargets = { campaigns: CampaignTarget[]; productGroups: ProductGroup[] };

/** micro-units, or a fraction; null where none is set */
export type OwnTarget = { targetMicros: number | null; targetAcos: number | null };
export type CampaignTarget = OwnTarget & { campaignId: string };
export type ProductGroup = OwnTarget & { name: string; adGroupIds: string[]; seats: SeatsByName };

export async function loadOwnTargets(db: Db, accountId: number): Promise<OwnTargets> {
  const where = { account_id: accountId };
  const campaigns = await db('campaign_target').where(where).orderBy('campaign_id');
  const groups = await db('product_group').where(where).orderBy('name');
  const members: { ad_group_id: number; product_group_id: number }[] = await db('product_group_ad_group')
    .where(where)
    .orderBy('ad_group_id');
  const target = (row: { target_micros: number | null; target_acos: number | null }): OwnTarget => ({
    targetMicros: row.target_micros,
    targetAcos: row.target_acos,
  });
  return {
    campaigns: campaigns.map((row) => ({ campaignId: String(row.campaign_id), ...target(row) })),
    productGroups: groups.map((row) => ({
      ...{ name: row.name as string, seats: row.seats as SeatsByName },
      ...target(row),
      adGroupIds: members.flatMap((m) =>
        m.product_group_id === row.product_group_id ? String(m.ad_group_id) : [],
      ),
    })),
  };
}

/** Puts these targets in the place of all that the account's campaigns and product groups had. */
export async function replaceOwnTargets(
  db: Db,
  accountId: number,
  { campaigns, productGroups }: OwnTargets,
): Promise<void> {
  const where = { account_id: accountId };
  await db('campaign_target').where(where).delete();
  await db('product_group').where(where).delete();
  const row = ({ targetMicros, targetAcos }: OwnTarget) => ({
    ...where,
    target_micros: targetMicros,
    target_acos: targetAcos,
  });
  for (const one of campaigns)
    await db('campaign_target').insert({ ...row(one), campaign_id: Number(one.campaignId) });
  for (const one of productGroups) {
    const [made] = await db('product_group')
      .insert({ ...row(one), name: one.name, seats: JSON.stringify(one.seats ?? {}) })
      .returning<{ product_group_id: number }[]>('product_group_id');
    const { product_group_id } = made!;
    for (const id of one.adGroupIds)
      await db('product_group_ad_group').insert({ ...where, ad_group_id: Number(id), product_group_id });
  }
}
