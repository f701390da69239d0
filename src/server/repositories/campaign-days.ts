import type { Window } from '@/core';
import type { Db } from '../db/connection';

/** What a campaign cost on a day, micro-units. */
export type CampaignDay = { campaignId: string; day: string; costMicros: number };

/** What campaigns cost on each day of a window; days on which a campaign cost nothing are left out. */
export async function listCampaignDays(
  db: Db,
  accountId: number,
  campaignIds: readonly string[],
  { from, to }: Window,
): Promise<CampaignDay[]> {
  if (campaignIds.length === 0) return [];
  const { rows } = await db.raw<{ rows: CampaignDay[] }>(
    `select cast(g.campaign_id as text) as "campaignId", d.day, sum(d.cost_micros)::bigint as "costMicros"
       from term_day d
       join ad_group g on (g.account_id, g.ad_group_id) = (d.account_id, d.ad_group_id)
      where d.account_id = :accountId and d.day between :from and :to
        and g.account_id = :accountId and g.campaign_id = any(:campaigns)
      group by g.campaign_id, d.day
     having sum(d.cost_micros) > 0
      order by d.day`,
    { accountId, from, to, campaigns: campaignIds.map(Number) },
  );
  return rows;
}
