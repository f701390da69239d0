import type { Knex } from 'knex';
import { daysBetween, shiftDay, writeCsv } from '@/core';

/** A day is reported two days after it ended; its conversions grow for two days more. */
const REPORT_LAG = 2;

/** What stands in place of a search term for spend on queries that are not shown. */
const UNREPORTED = '(unreported)';

const HEADER = [
  ...['Day', 'Campaign', 'Ad group', 'Keyword', 'Match type', 'Search term'],
  ...['Impressions', 'Clicks', 'Cost', 'Conversions', 'Conversion value'],
];

/** The newest day that a report made on `today` holds. */
export function newestReportedDay(today: string): string {
  return shiftDay(today, -REPORT_LAG);
}

/**
 * The search term report of an account as CSV, days and figures as known on the account's day. Rare queries are not
 * shown: their spend stands in one row for each day, ad group and keyword.
 */
export async function searchTermReport(
  db: Knex,
  account: { id: string; today: string },
  window: { from: string; to: string },
): Promise<string> {
  const newest = newestReportedDay(account.today);
  const to = window.to < newest ? window.to : newest;
  const { rows } = await db.raw<{ rows: ReportLine[] }>(
    `with line as (
       select t.day, t.ad_group_id, t.keyword_id,
              case when q.unreported then :unreported else q.text end as term,
              sum(t.impressions)::bigint as impressions, sum(t.clicks)::bigint as clicks,
              sum(t.cost_micros)::bigint as cost_micros,
              array[sum(t.conversions[1]), sum(t.conversions[2]), sum(t.conversions[3])]::integer[] as conversions,
              array[sum(t.value_micros[1]), sum(t.value_micros[2]), sum(t.value_micros[3])]::text[] as value_micros
         from traffic_day t
         join query q on (q.account_id, q.id) = (t.account_id, t.query_id)
        where t.account_id = :account and t.day between :from and :to
        group by 1, 2, 3, 4
     )
     select l.day, c.body->>'name' as campaign, g.body->>'name' as ad_group,
            k.body->>'text' as keyword, coalesce(k.body->>'match', 'automatic') as match,
            l.term, l.impressions, l.clicks, l.cost_micros, l.conversions, l.value_micros
       from line l
       join ad_group g on g.account_id = :account and g.id = l.ad_group_id
       join campaign c on c.account_id = :account and c.id = g.body->>'campaignId'
       left join keyword k on k.account_id = :account and k.id = l.keyword_id
      order by 1, 2, 3, 4, 5, 6`,
    { account: account.id, from: window.from, to, unreported: UNREPORTED },
  );
  return writeCsv(
    HEADER,
    rows.map((row) => {
      const known = Math.min(daysBetween(row.day, newest), 2);
      const money = (micros: number) => (micros / 1e6).toFixed(2);
      return [
        ...[row.day, row.campaign, row.ad_group, row.keyword, row.match, row.term],
        ...[row.impressions, row.clicks, money(row.cost_micros), row.conversions[known]!],
        money(Number(row.value_micros[known])),
      ];
    }),
  );
}

type ReportLine = {
  day: string;
  campaign: string;
  ad_group: string;
  keyword: string | null;
  match: string;
  term: string;
  impressions: number;
  clicks: number;
  cost_micros: number;
  conversions: number[];
  value_micros: string[];
};
