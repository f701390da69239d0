import type { Db } from '../db/connection';

/** Rows of a term in an ad group, in the days before something stopped them; of one keyword alone where that is said. */
export type BeforeDays = {
  group: number;
  termId: number;
  adGroupId: number;
  keywordId?: number;
  from: string;
  to: string;
};

/** Sums over the rows of a group, each term once. */
export type BeforeSums = {
  group: number;
  terms: number;
  clicks: number;
  costMicros: number;
  valueMicros: number;
  /** terms among them that converted, how often, and what the others cost */
  returningTerms: number;
  conversions: number;
  wastedMicros: number;
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
                            cast(:keywords as integer[]), cast(:froms as date[]), cast(:tos as date[]))
              as a (grp, term_id, ad_group_id, keyword_id, first_day, last_day)
     ), of_term as (
       select a.grp, f.term_id, sum(f.clicks) as clicks, sum(f.cost_micros) as cost, sum(f.conversions) as conversions,
              sum(f.value_micros) as value
         from asked a
         join term_day f on f.account_id = :account and f.term_id = a.term_id and f.ad_group_id = a.ad_group_id
                        and f.day between a.first_day and a.last_day
                        and (a.keyword_id is null or f.keyword_id = a.keyword_id)
        group by a.grp, f.term_id
     )
     select grp as "group", count(*)::integer as terms, coalesce(sum(clicks), 0)::bigint as clicks,
            coalesce(sum(cost), 0)::bigint as "costMicros", coalesce(sum(value), 0)::bigint as "valueMicros",
            count(*) filter (where conversions > 0)::integer as "returningTerms",
            coalesce(sum(conversions), 0) as conversions,
            coalesce(sum(cost) filter (where coalesce(conversions, 0) <= 0), 0)::bigint as "wastedMicros"
       from of_term group by grp`,
    {
      account: accountId,
      groups: asked.map((a) => a.group),
      terms: asked.map((a) => a.termId),
      adGroups: asked.map((a) => a.adGroupId),
      keywords: asked.map((a) => a.keywordId ?? null),
      froms: asked.map((a) => a.from),
      tos: asked.map((a) => a.to),
    },
  );
  return rows;
}
