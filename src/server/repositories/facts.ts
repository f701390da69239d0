import type { Figures } from '@/core';
import type { Knex } from 'knex';
import { normalise, type ReportRow } from '@/core';
import { openCopy, type CopySink, type CopyValue } from '../db/copy';
import type { Db } from '../db/connection';

export type TermKind = 'query' | 'code' | 'wordless' | 'unreported';

/** What a report writes in place of a term for spend on queries it does not show. */
const UNREPORTED = '(unreported)';

/** The key under which a term is stored, and what kind of term it is (see the table `term`). */
export function keyOfTerm(
  raw: string,
  isProductCode: (raw: string) => boolean,
): { key: string; kind: TermKind } {
  const plain = raw.trim().toLowerCase();
  if (plain === UNREPORTED) return { key: plain, kind: 'unreported' };
  if (isProductCode(raw)) return { key: plain, kind: 'code' };
  const key = normalise(raw);
  return key === '' ? { key: plain, kind: 'wordless' } : { key, kind: 'query' };
}

const STAGED = [
  ...['key', 'raw', 'kind', 'campaign', 'ad_group', 'keyword', 'keyword_key', 'match', 'day'],
  ...['impressions', 'clicks', 'cost_micros', 'conversions', 'value_micros'],
];

/** Opens a staging table that lives as long as the transaction, and a COPY into it. */
export async function openStaging(trx: Knex.Transaction): Promise<CopySink> {
  await trx.raw(`
    create temporary table staged (
      key text, raw text, kind text, campaign text, ad_group text, keyword text, keyword_key text, match text,
      day date, impressions bigint, clicks bigint, cost_micros bigint, conversions double precision,
      value_micros bigint
    ) on commit drop`);
  return openCopy(trx, 'staged', STAGED);
}

/** A report's row as it is staged. */
export function toStaged(row: ReportRow, isProductCode: (raw: string) => boolean): CopyValue[] {
  const { key, kind } = keyOfTerm(row.term, isProductCode);
  const keyword = row.keyword ?? '';
  return [
    ...[
      key,
      row.term,
      kind,
      row.campaign,
      row.adGroup,
      keyword,
      normalise(keyword),
      row.match ?? 'unknown',
      row.day,
    ],
    ...[row.impressions, row.clicks, row.costMicros, row.conversions, row.valueMicros],
  ];
}

/**
 * Moves what is staged into the facts: elements that the report names and the mirror lacks are added with status
 * unknown; rows of one key are summed; what is there for the same key is replaced.
 */
export async function mergeStaged(
  trx: Knex.Transaction,
  accountId: number,
): Promise<{ added: number; replaced: number; newTerms: number }> {
  const account = { account: accountId };
  await trx.raw('analyze staged');
  await trx.raw(
    `insert into campaign (account_id, name, status)
     select :account, s.campaign, 'unknown' from (select distinct campaign from staged) s
     where not exists (select from campaign c where c.account_id = :account and c.name = s.campaign)
     order by 2`,
    account,
  );
  await trx.raw(
    `create temporary table staged_campaign on commit drop as
       select name, min(campaign_id) as campaign_id from campaign where account_id = :account group by name`,
    account,
  );
  await trx.raw(
    `insert into ad_group (account_id, campaign_id, name, status)
     select :account, c.campaign_id, s.ad_group, 'unknown'
       from (select distinct campaign, ad_group from staged) s join staged_campaign c on c.name = s.campaign
      where not exists (select from ad_group g
                         where (g.account_id, g.campaign_id, g.name) = (:account, c.campaign_id, s.ad_group))
      order by 2, 3`,
    account,
  );
  await trx.raw(
    `create temporary table staged_group on commit drop as
       select c.name as campaign, g.name as ad_group, min(g.ad_group_id) as ad_group_id
         from ad_group g join staged_campaign c on c.campaign_id = g.campaign_id
        where g.account_id = :account group by 1, 2`,
    account,
  );
  await trx.raw(
    `insert into keyword (account_id, ad_group_id, text, text_key, match, status)
     select :account, g.ad_group_id, min(s.keyword), s.keyword_key, s.match, 'unknown'
       from staged s join staged_group g using (campaign, ad_group)
      where not exists (select from keyword k where (k.account_id, k.ad_group_id, k.text_key, k.match)
                                                  = (:account, g.ad_group_id, s.keyword_key, s.match))
      group by g.ad_group_id, s.keyword_key, s.match
      order by 2, 4, 5`,
    account,
  );
  // The planner knows nothing of what was just added, so the joins below go through small tables it does know.
  await trx.raw(
    `create temporary table staged_keyword on commit drop as
       select ad_group_id, text_key, match, min(keyword_id) as keyword_id
         from keyword where account_id = :account group by 1, 2, 3`,
    account,
  );
  const terms = await trx.raw<{ rowCount: number }>(
    `insert into term (account_id, key, raw, kind)
     select :account, key, min(raw), min(kind) from staged group by key order by key
     on conflict (account_id, key) do nothing`,
    account,
  );
  await trx.raw(
    `create temporary table staged_term on commit drop as
       select key, term_id from term join (select distinct key from staged) s using (key) where account_id = :account`,
    account,
  );
  for (const table of ['staged_group', 'staged_keyword', 'staged_term']) await trx.raw('analyze ??', [table]);
  const { rows } = await trx.raw<{ rows: { added: number; replaced: number }[] }>(
    `with placed as (
       select s.day, g.ad_group_id, k.keyword_id, t.term_id,
              s.impressions, s.clicks, s.cost_micros, s.conversions, s.value_micros
         from staged s
         join staged_group g using (campaign, ad_group)
         join staged_keyword k
           on (k.ad_group_id, k.text_key, k.match) = (g.ad_group_id, s.keyword_key, s.match)
         join staged_term t on t.key = s.key
     ), written as (
       insert into term_day as d (account_id, day, ad_group_id, keyword_id, term_id,
                                  impressions, clicks, cost_micros, conversions, value_micros)
       select :account, day, ad_group_id, keyword_id, term_id,
              sum(impressions), sum(clicks), sum(cost_micros), sum(conversions), sum(value_micros)
         from placed group by 2, 3, 4, 5 order by 2, 3, 4, 5
       on conflict (account_id, day, ad_group_id, keyword_id, term_id) do update
         set impressions = excluded.impressions, clicks = excluded.clicks, cost_micros = excluded.cost_micros,
             conversions = excluded.conversions, value_micros = excluded.value_micros
       returning xmax = 0 as is_new
     )
     select count(*) filter (where is_new) as added, count(*) filter (where not is_new) as replaced from written`,
    account,
  );
  return { ...rows[0]!, newTerms: terms.rowCount };
}

/** What was served in a window: the sums of a (term, ad group, keyword). */
export type WindowRow = {
  termId: number;
  adGroupId: number;
  keywordId: number;
  lastDay: string;
} & Figures;

/** The rows of a window one by one, ordered by term; never all of them in memory. */
export function streamWindow(
  db: Db,
  accountId: number,
  window: { from: string; to: string },
): AsyncIterable<WindowRow> {
  return db('term_day')
    .where({ account_id: accountId })
    .whereBetween('day', [window.from, window.to])
    .groupBy('term_id', 'ad_group_id', 'keyword_id')
    .orderBy(['term_id', 'ad_group_id', 'keyword_id'])
    .select(
      'term_id as termId',
      'ad_group_id as adGroupId',
      'keyword_id as keywordId',
      db.raw('sum(impressions)::bigint as impressions'),
      db.raw('sum(clicks)::bigint as clicks'),
      db.raw('sum(cost_micros)::bigint as "costMicros"'),
      db.raw('sum(conversions) as conversions'),
      db.raw('sum(value_micros)::bigint as "valueMicros"'),
      db.raw('max(day) as "lastDay"'),
    )
    .stream(STREAM);
}

const STREAM = { batchSize: 5_000, highWaterMark: 10_000 };

export type Term = { id: number; key: string; raw: string; kind: TermKind };

/** The terms of a window one by one, ordered by id. */
export function streamTerms(
  db: Db,
  accountId: number,
  window: { from: string; to: string },
): AsyncIterable<Term> {
  const inWindow = db('term_day')
    .where({ account_id: accountId })
    .whereBetween('day', [window.from, window.to]);
  return db('term')
    .where({ account_id: accountId })
    .whereIn('term_id', inWindow.distinct('term_id'))
    .orderBy('term_id')
    .select('term_id as id', 'key', 'raw', 'kind')
    .stream(STREAM);
}

/** Texts of the queries that converted at least so often in all the data there is (rules 6). */
export async function loadConvertingTerms(db: Db, accountId: number, keeper: number): Promise<string[]> {
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

/** Spend of each day of a window, in order. */
export async function loadSpendByDay(
  db: Db,
  accountId: number,
  window: { from: string; to: string },
): Promise<DaySpend[]> {
  const { rows } = await db.raw<{ rows: DaySpend[] }>(
    `with fact as (
       select day, term_id, cost_micros, conversions
         from term_day where account_id = :account and day between :from and :to
     ), converted as (
       select term_id from fact group by term_id having sum(conversions) > 0
     )
     select day, coalesce(sum(cost_micros), 0)::bigint as "costMicros",
            coalesce(sum(cost_micros) filter (where v.term_id is not null), 0)::bigint as "returnedMicros"
       from fact left join converted v using (term_id)
      group by day order by day`,
    { account: accountId, from: window.from, to: window.to },
  );
  return rows;
}

/** Spend of some rows of a window by day, in order; `returned` says which of them are of terms that converted. */
export async function loadSpendOfRows(
  db: Db,
  accountId: number,
  window: { from: string; to: string },
  chosen: readonly (Pick<WindowRow, 'termId' | 'adGroupId' | 'keywordId'> & { returned: boolean })[],
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

/** How many days of a span hold facts. */
export async function countDaysThere(
  db: Db,
  accountId: number,
  span: { from: string; to: string },
): Promise<number> {
  const { rows } = await db.raw<{ rows: { days: number }[] }>(
    `select count(*) as days from generate_series(:from::date, :to::date, '1 day') as s (day)
      where exists (select from term_day d where d.account_id = :account and d.day = s.day)`,
    { account: accountId, from: span.from, to: span.to },
  );
  return rows[0]!.days;
}

/** Tells the planner what a load has changed; without it, the first queries after a large one go astray. */
export async function analyseFacts(db: Db): Promise<void> {
  for (const table of ['term_day', 'term', 'keyword', 'ad_group', 'campaign'])
    await db.raw('analyze ??', [table]);
}
