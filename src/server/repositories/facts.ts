import type { Figures } from '@/core';
import type { Db } from '../db/connection';
import { findPartition } from './load/partitions';

export type TermKind = 'query' | 'code' | 'wordless' | 'unreported';

export type Term = { id: number; key: string; raw: string; kind: TermKind };

/**
 * Texts of the queries that converted at least so often in all the data there is (rules 6).
 * @param keeper null: no term is protected for what it brought
 */
export async function loadConvertingTerms(
  db: Db,
  accountId: number,
  keeper: number | null,
): Promise<string[]> {
  if (keeper === null) return [];
  const earned = db('term_day')
    .where({ account_id: accountId })
    .groupBy('term_id')
    .havingRaw('sum(conversions) >= ?', [keeper])
    .select('term_id');
  const rows: { key: string }[] = await db
    .withMaterialized('earned', earned)
    .from('earned')
    .join('term as t', function () {
      this.on('t.term_id', 'earned.term_id').andOnVal('t.account_id', accountId).andOnVal('t.kind', 'query');
    })
    .orderBy('t.key')
    .select('t.key as key');
  return rows.map((row) => row.key);
}

export type DaySpend = {
  day: string;
  costMicros: number;
  /** cost of the terms that converted in the window */
  returnedMicros: number;
};

/** Spend of all terms by day, in order. A term returned if it converted in these days. */
export async function loadSpendByDay(
  db: Db,
  accountId: number,
  window: { from: string; to: string },
): Promise<DaySpend[]> {
  const { rows } = await db.raw<{ rows: DaySpend[] }>(
    `with returned as (
       select term_id from term_day
        where account_id = :account and day between :from and :to and conversions <> 0
        group by term_id having sum(conversions) > 0
     )
     select f.day, coalesce(sum(f.cost_micros), 0)::bigint as "costMicros",
            coalesce(sum(f.cost_micros) filter (where r.term_id is not null), 0)::bigint as "returnedMicros"
       from term_day f left join returned r using (term_id)
      where f.account_id = :account and f.day between :from and :to
      group by f.day order by f.day`,
    { account: accountId, ...window },
  );
  return rows;
}

/** What all terms cost and brought on some days; 0 where nothing is known. */
export async function sumOfDays(
  db: Db,
  accountId: number,
  days: { from: string; to: string },
): Promise<{ costMicros: number; conversions: number; valueMicros: number }> {
  const { rows } = await db.raw<{ rows: { costMicros: number; conversions: number; valueMicros: number }[] }>(
    `select coalesce(sum(cost_micros), 0)::bigint as "costMicros", coalesce(sum(conversions), 0)::double precision as conversions,
            coalesce(sum(value_micros), 0)::bigint as "valueMicros"
       from term_day where account_id = :accountId and day between :from and :to`,
    { accountId, ...days },
  );
  return rows[0]!;
}

/** Spend of some rows of a window by day, in order; `returned` says which of them are of terms that converted. */
export async function loadSpendOfRows(
  db: Db,
  accountId: number,
  window: { from: string; to: string },
  chosen: readonly { termId: number; adGroupId: number; keywordId: number; returned: boolean }[],
): Promise<DaySpend[]> {
  if (chosen.length === 0) return [];
  const { rows } = await db.raw<{ rows: DaySpend[] }>(
    `select day, coalesce(sum(cost_micros), 0)::bigint as "costMicros",
            coalesce(sum(cost_micros) filter (where c.returned), 0)::bigint as "returnedMicros"
       from term_day
       join unnest(:terms::integer[], :groups::integer[], :keywords::integer[], :returned::boolean[])
         as c (term_id, ad_group_id, keyword_id, returned) using (term_id, ad_group_id, keyword_id)
      where account_id = :account and day between :from and :to
      group by day order by day`,
    {
      account: accountId,
      from: window.from,
      to: window.to,
      terms: chosen.map((r) => r.termId),
      groups: chosen.map((r) => r.adGroupId),
      keywords: chosen.map((r) => r.keywordId),
      returned: chosen.map((r) => r.returned),
    },
  );
  return rows;
}

/** What a (term, ad group, keyword) did from `since` to the day before the next of the days that were asked about. */
export type SumSince = { termId: number; adGroupId: number; keywordId: number; since: string } & Figures;

/**
 * Sums of some terms from the first of some days to `to`, parted where one of the days begins.
 * @param days ascending
 */
export async function loadSumsSince(
  db: Db,
  accountId: number,
  to: string,
  termIds: readonly number[],
  days: readonly string[],
): Promise<SumSince[]> {
  if (termIds.length === 0) return [];
  const { rows } = await db.raw<{ rows: SumSince[] }>(
    `select term_id as "termId", ad_group_id as "adGroupId", keyword_id as "keywordId",
            (cast(:days as date[]))[width_bucket(day, cast(:days as date[]))] as since,
            sum(impressions)::bigint as impressions, sum(clicks)::bigint as clicks,
            sum(cost_micros)::bigint as "costMicros", sum(conversions) as conversions,
            sum(value_micros)::bigint as "valueMicros"
       from term_day
      where account_id = :account and day between :from and :to and term_id = any(cast(:terms as integer[]))
      group by 1, 2, 3, 4`,
    { account: accountId, from: days[0]!, to, terms: [...termIds], days: [...days] },
  );
  return rows;
}

/** What runs in a campaign from `since` to the day before the next of the days that were asked about. */
export type TrafficSince = { campaignId: number; since: string; impressions: number };

/**
 * Impressions of each campaign, clicks where a row's impressions are unknown, from the first of some days to `to`, parted where one of the
 * days begins.
 * @param days ascending
 */
export async function loadTraffic(
  db: Db,
  accountId: number,
  to: string,
  days: readonly string[],
): Promise<TrafficSince[]> {
  const { rows } = await db.raw<{ rows: TrafficSince[] }>(
    `with by_group as (
       select ad_group_id, (cast(:days as date[]))[width_bucket(day, cast(:days as date[]))] as since,
              sum(coalesce(impressions, clicks)) as impressions
         from term_day
        where account_id = :account and day between :from and :to
        group by 1, 2
     )
     select campaign_id as "campaignId", since, sum(b.impressions)::bigint as impressions
       from by_group b join ad_group g on g.account_id = :account and g.ad_group_id = b.ad_group_id
      group by 1, 2`,
    { account: accountId, from: days[0]!, to, days: [...days] },
  );
  return rows;
}

/** Terms that were first served after a day, with what they did since. */
export type NewTerm = { text: string; clicks: number; costMicros: number; conversions: number };

/** The queries that were served after a day and on no day before it, costliest first. */
export async function loadNewTerms(db: Db, accountId: number, since: string): Promise<NewTerm[]> {
  const { rows } = await db.raw<{ rows: NewTerm[] }>(
    `with new as (
       select term_id, coalesce(sum(clicks), 0) as clicks, coalesce(sum(cost_micros), 0) as cost_micros,
              coalesce(sum(conversions), 0) as conversions
         from term_day
        where account_id = :account
        group by term_id
       having min(day) > :since
     )
     select t.key as text, n.clicks::bigint as clicks, n.cost_micros::bigint as "costMicros", n.conversions
       from new n join term t on t.account_id = :account and t.term_id = n.term_id
      where t.kind = 'query'
      order by n.cost_micros desc, t.key`,
    { account: accountId, since },
  );
  return rows;
}

/** What a keyword was shown before a day and from it on, without some terms. */
export type KeywordShown = { keywordId: number; before: number; since: number };

/**
 * Impressions of each keyword from one day to before another, and from that to a third.
 * @param without terms that do not count
 */
export async function loadKeywordsShown(
  db: Db,
  accountId: number,
  days: { from: string; turn: string; to: string },
  without: readonly number[],
): Promise<KeywordShown[]> {
  const { rows } = await db.raw<{ rows: KeywordShown[] }>(
    `select f.keyword_id as "keywordId",
            coalesce(sum(f.impressions) filter (where f.day < :turn), 0)::bigint as before,
            coalesce(sum(f.impressions) filter (where f.day >= :turn), 0)::bigint as since
       from term_day f
       left join unnest(cast(:without as integer[])) as w (term_id) on w.term_id = f.term_id
      where f.account_id = :account and f.day between :from and :to and w.term_id is null
      group by f.keyword_id`,
    { account: accountId, ...days, without: [...without] },
  );
  return rows;
}

/** The days that hold facts, ascending. Hops from day to day through the key, without reading the facts. */
export async function listDaysThere(db: Db, accountId: number): Promise<string[]> {
  const { rows } = await db.raw<{ rows: { day: string }[] }>(
    `with recursive days as (
       (select day from term_day where account_id = :account order by day limit 1)
       union all
       select (select t.day from term_day t where t.account_id = :account and t.day > days.day order by t.day limit 1)
         from days where days.day is not null
     )
     select day from days where day is not null`,
    { account: accountId },
  );
  return rows.map((row) => row.day);
}

/** Whether the sums of all facts stay within what the database counts with (2^63). */
export async function canBeCounted(db: Db, accountId: number): Promise<boolean> {
  const row: { most: string } = await db('term_day')
    .where({ account_id: accountId })
    .first(db.raw('greatest(sum(cost_micros), sum(value_micros), 0)::text as most'));
  return BigInt(row.most) < 2n ** 63n;
}

/** Tells the planner what a load has changed; without it, the first queries after a large one go astray. */
export async function analyseFacts(db: Db, accountId: number): Promise<void> {
  const parts = [await findPartition(db, 'term_day', accountId), await findPartition(db, 'term', accountId)];
  const tables = [...parts, 'keyword', 'ad_group', 'campaign'].filter((table) => table !== null);
  await Promise.all(tables.map((table) => db.raw('analyze ??', [table])));
}

/**
 * Each day of a window of one term, and on it the figures of each of its rows, in the order given; unknown ones count as
 * 0. Every fact is found by its whole key.
 */
export async function loadDaysOfRows(
  db: Db,
  accountId: number,
  window: { from: string; to: string },
  termId: number,
  rows: readonly { adGroupId: number; keywordId: number }[],
): Promise<{ day: string; rows: { clicks: number; costMicros: number; conversions: number }[] }[]> {
  type Found = { day: string; row: number; clicks: number; costMicros: number; conversions: number };
  const { rows: found } = await db.raw<{ rows: Found[] }>(
    `select d.day::date as day, r.row::integer as row, coalesce(f.clicks, 0)::bigint as clicks,
            coalesce(f.cost_micros, 0)::bigint as "costMicros", coalesce(f.conversions, 0) as conversions
       from generate_series(cast(:from as date), cast(:to as date), interval '1 day') as d (day)
      cross join unnest(cast(:groups as integer[]), cast(:keywords as integer[])) with ordinality
         as r (ad_group_id, keyword_id, row)
       left join lateral (
         select clicks, cost_micros, conversions from term_day f
          where f.account_id = :account and f.day = d.day::date and f.ad_group_id = r.ad_group_id
            and f.keyword_id = r.keyword_id and f.term_id = :term
          limit 1 -- so that each is looked up, and the facts are never read through
       ) f on true
      order by d.day, r.row`,
    {
      ...{ account: accountId, from: window.from, to: window.to, term: termId },
      groups: rows.map((r) => r.adGroupId),
      keywords: rows.map((r) => r.keywordId),
    },
  );
  const byDay = new Map<string, Found[]>();
  for (const one of found) byDay.set(one.day, [...(byDay.get(one.day) ?? []), one]);
  return [...byDay].map(([day, of]) => ({ day, rows: of }));
}
