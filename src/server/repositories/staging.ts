import type { Knex } from 'knex';
import { normalise, type ReportRow } from '@/core';
import { openCopy, type CopySink, type CopyValue } from '../db/copy';
import type { TermKind } from './facts';

/** What a report writes in place of a term for spend on queries it does not show. */
const UNREPORTED = '(unreported)';

/** What stands for a campaign or an ad group of which the report says nothing. */
const UNNAMED = '(not named)';

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

/** Which load facts are of. A period is what rows without days are sums of: they replace all of its days. */
export type LoadKey = { accountId: number; reportFileId: number; period?: { from: string; to: string } };

/** A report on its way into the database, within one transaction. */
export type Staging = {
  /** Waits while the database is behind. */
  write(rows: readonly ReportRow[]): Promise<void>;
  abort(reason: Error): Promise<void>;
  /** Ends the rows; until then nothing else may run in the transaction. */
  finish(): Promise<void>;
  /**
   * Moves what was written into the facts: elements that the report names and the mirror lacks are added with status
   * unknown; rows of one key are summed; what is there for the same key is replaced, and kept so that the load can be
   * taken back.
   * @param pause is waited for between the steps; what it throws ends the merge
   */
  merge(
    load: LoadKey,
    pause: () => Promise<void>,
  ): Promise<{ added: number; replaced: number; newTerms: number }>;
};

/**
 * Opens staging tables that live as long as the transaction. Terms and keywords are given numbers as they are met, so
 * that the rows go over as numbers and each text once.
 */
export async function openStaging(
  trx: Knex.Transaction,
  isProductCode: (raw: string) => boolean,
): Promise<Staging> {
  await trx.raw(`
    create temporary table staged (
      day date, keyword integer, term integer, impressions bigint, clicks bigint, cost_micros bigint,
      conversions double precision, value_micros bigint
    ) on commit drop;
    create temporary table staged_term (local integer, key text, raw text, kind text) on commit drop;
    create temporary table staged_keyword (
      local integer, campaign text, ad_group text, text text, text_key text, match text
    ) on commit drop`);
  const numbers = createNumbers(isProductCode);
  const sink = await openCopy(trx, 'staged', [
    ...['day', 'keyword', 'term', 'impressions', 'clicks', 'cost_micros', 'conversions', 'value_micros'],
  ]);
  return {
    write: (rows) =>
      sink.write(
        rows.map((row) => [
          ...[row.day, numbers.keywordOf(row), numbers.termOf(row.term)],
          ...[row.impressions, row.clicks, row.costMicros, row.conversions, row.valueMicros],
        ]),
      ),
    abort: (reason) => sink.abort(reason),
    finish: () => sink.finish(),
    async merge(load, pause) {
      await copyAll(await openCopy(trx, 'staged_term', ['local', 'key', 'raw', 'kind']), numbers.terms);
      await copyAll(
        await openCopy(trx, 'staged_keyword', ['local', 'campaign', 'ad_group', 'text', 'text_key', 'match']),
        numbers.keywords,
      );
      return merge(trx, load, pause);
    },
  };
}

const BATCH = 5_000;

async function copyAll(sink: CopySink, rows: readonly CopyValue[][]): Promise<void> {
  for (let at = 0; at < rows.length; at += BATCH) await sink.write(rows.slice(at, at + BATCH));
  await sink.finish();
}

/** Numbers for the texts of a report, from 0, each with the row that is staged for it. */
function createNumbers(isProductCode: (raw: string) => boolean) {
  const terms: CopyValue[][] = [];
  const byRaw = new Map<string, number>();
  const byKey = new Map<string, number>();
  const keywords: CopyValue[][] = [];
  const byElement = new Map<string, number>();
  return {
    terms,
    keywords,
    termOf(raw: string): number {
      const known = byRaw.get(raw);
      if (known !== undefined) return known;
      const { key, kind } = keyOfTerm(raw, isProductCode);
      let local = byKey.get(key);
      if (local === undefined) {
        local = terms.length;
        byKey.set(key, local);
        terms.push([local, key, raw, kind]);
      }
      byRaw.set(raw, local);
      return local;
    },
    keywordOf({ keyword, match, ...row }: ReportRow): number {
      const campaign = row.campaign || UNNAMED;
      const adGroup = row.adGroup || UNNAMED;
      const element = `${campaign}\u0000${adGroup}\u0000${keyword ?? ''}\u0000${match ?? ''}`;
      let local = byElement.get(element);
      if (local === undefined) {
        local = keywords.length;
        byElement.set(element, local);
        const text = keyword ?? '';
        keywords.push([local, campaign, adGroup, text, normalise(text), match ?? 'unknown']);
      }
      return local;
    },
  };
}

async function merge(trx: Knex.Transaction, load: LoadKey, pause: () => Promise<void>) {
  const { accountId } = load;
  // The planner knows nothing of what was just written, and would take its time to compile these few statements.
  await trx.raw(`set local jit = off; set local work_mem = '128MB'`);
  for (const table of ['staged', 'staged_term', 'staged_keyword']) await trx.raw('analyze ??', [table]);
  await addElements(trx, accountId);
  await pause();
  const terms = await trx.raw<{ rowCount: number }>(
    `insert into term (account_id, key, raw, kind)
     select :account, key, raw, kind from staged_term order by key
     on conflict (account_id, key) do nothing`,
    { account: accountId },
  );
  await trx.raw(
    `create temporary table term_of on commit drop as
       select s.local, t.term_id from staged_term s join term t on (t.account_id, t.key) = (:account, s.key)`,
    { account: accountId },
  );
  await trx.raw('analyze term_of');
  await pause();
  return { ...(await writeFacts(trx, load)), newTerms: terms.rowCount };
}

/** Campaigns, ad groups and keywords that the report names and the mirror lacks; then what each number stands for. */
async function addElements(trx: Knex.Transaction, accountId: number): Promise<void> {
  const account = { account: accountId };
  await trx.raw(
    `insert into campaign (account_id, name, status)
     select :account, s.campaign, 'unknown' from (select distinct campaign from staged_keyword) s
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
       from (select distinct campaign, ad_group from staged_keyword) s join staged_campaign c on c.name = s.campaign
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
     select :account, g.ad_group_id, min(s.text), s.text_key, s.match, 'unknown'
       from staged_keyword s join staged_group g using (campaign, ad_group)
      where not exists (select from keyword k where (k.account_id, k.ad_group_id, k.text_key, k.match)
                                                  = (:account, g.ad_group_id, s.text_key, s.match))
      group by g.ad_group_id, s.text_key, s.match
      order by 2, 4, 5`,
    account,
  );
  await trx.raw(
    `create temporary table keyword_of on commit drop as
       select s.local, g.ad_group_id, k.keyword_id
         from staged_keyword s
         join staged_group g using (campaign, ad_group)
         join (select ad_group_id, text_key, match, min(keyword_id) as keyword_id
                 from keyword where account_id = :account group by 1, 2, 3) k
           on (k.ad_group_id, k.text_key, k.match) = (g.ad_group_id, s.text_key, s.match)`,
    account,
  );
  await trx.raw('analyze keyword_of');
}

/** The figures of a fact, in the order of its table. */
const FIGURES = 'impressions, clicks, cost_micros, conversions, value_micros';

/** Doubles add up faster than numerics, and exactly as long as a sum stays below 2^53 (9 thousand million in money). */
const WRITE = `
  insert into term_day (account_id, day, ad_group_id, keyword_id, term_id, ${FIGURES}, report_file_id)
  select :account, s.day, k.ad_group_id, k.keyword_id, t.term_id,
         sum(s.impressions::float8), sum(s.clicks::float8), sum(s.cost_micros::float8), sum(s.conversions),
         sum(s.value_micros::float8), :file
    from staged s join keyword_of k on k.local = s.keyword join term_of t on t.local = s.term
   group by 2, 3, 4, 5 order by 2, 3, 4, 5`;

/** Takes away what is there for the keys of the load, and keeps it. */
const REPLACE = `
  with keys as materialized (
    select distinct s.day, k.ad_group_id, k.keyword_id, t.term_id
      from staged s join keyword_of k on k.local = s.keyword join term_of t on t.local = s.term
  ), gone as (
    delete from term_day d using keys
     where d.account_id = :account and d.day between :from and :to
       and (d.ad_group_id, d.keyword_id, d.term_id) = (keys.ad_group_id, keys.keyword_id, keys.term_id)
       and (d.day = keys.day or :isPeriod)
    returning d.*
  )
  insert into replaced_fact (account_id, report_file_id, was_of, day, ad_group_id, keyword_id, term_id, ${FIGURES})
  select account_id, :file, report_file_id, day, ad_group_id, keyword_id, term_id, ${FIGURES} from gone`;

async function writeFacts(
  trx: Knex.Transaction,
  { accountId, reportFileId, period }: LoadKey,
): Promise<{ added: number; replaced: number }> {
  const { rows } = await trx.raw<{ rows: { from: string | null; to: string | null }[] }>(
    `select min(day) as "from", max(day) as "to" from staged`,
  );
  const { from, to } = period ?? rows[0]!;
  const load = { account: accountId, file: reportFileId, from, to, isPeriod: period !== undefined };
  const there = await trx.raw<{ rows: unknown[] }>(
    `select 1 from term_day where account_id = :account and day between :from and :to limit 1`,
    load,
  );
  // Days of which nothing is known yet need no look at what is there.
  const replaced = there.rows.length > 0 ? (await trx.raw<{ rowCount: number }>(REPLACE, load)).rowCount : 0;
  const written = (await trx.raw<{ rowCount: number }>(WRITE, load)).rowCount;
  return { added: Math.max(0, written - replaced), replaced };
}
