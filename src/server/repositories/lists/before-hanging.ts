import type { Db } from '../../db/connection';

/** Rows of a term in an ad group, in the days before something stopped them. */
export type BeforeDays = { group: number; termId: number; adGroupId: number; from: string; to: string };

/** Sums over the rows of a group, each term once. */
export type BeforeSums = {
  group: number;
  terms: number;
  clicks: number;
  costMicros: number;
  /** terms among them that converted, and how often */
  returningTerms: number;
  conversions: number;
};

/** What was served on the days given, summed by group. A group that was not served is not among the answers. */
export async function sumBefore(
  db: Db,
  accountId: number,
  asked: readonly BeforeDays[],
): Promise<BeforeSums[]> {
  if (asked.length === 0) return [];
  const { rows } = await db.raw<{ rows: BeforeSums[] }>(
    `with asked as materialized (
       select * from unnest(cast(:groups as integer[]), cast(:terms as integer[]), cast(:adGroups as integer[]),
                            cast(:froms as date[]), cast(:tos as date[]))
              as a (grp, term_id, ad_group_id, first_day, last_day)
     ), of_term as (
       select a.grp, f.term_id, sum(f.clicks) as clicks, sum(f.cost_micros) as cost, sum(f.conversions) as conversions
         from asked a
         join term_day f on f.account_id = :account and f.term_id = a.term_id and f.ad_group_id = a.ad_group_id
                        and f.day between a.first_day and a.last_day
        group by a.grp, f.term_id
     )
     select grp as "group", count(*)::integer as terms, coalesce(sum(clicks), 0)::bigint as clicks,
            coalesce(sum(cost), 0)::bigint as "costMicros",
            count(*) filter (where conversions > 0)::integer as "returningTerms",
            coalesce(sum(conversions), 0) as conversions
       from of_term group by grp`,
    {
      account: accountId,
      groups: asked.map((a) => a.group),
      terms: asked.map((a) => a.termId),
      adGroups: asked.map((a) => a.adGroupId),
      froms: asked.map((a) => a.from),
      tos: asked.map((a) => a.to),
    },
  );
  return rows;
}
