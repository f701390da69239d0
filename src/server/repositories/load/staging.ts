import { setImmediate } from 'node:timers/promises';
import type { Knex } from 'knex';
import type { Period, ReportRow } from '@/core';
import { copyRows, type CopyColumn } from '../../db/copy';
import { dropPackedDays } from '../columns/drop-packed';
import { nameElements, ranksOfKeywords, type KeywordIds } from './name-elements';
import {
  createReportRows,
  DAY,
  FIGURES,
  KEYWORD,
  ranksOf,
  RECORD,
  sumRows,
  TERM,
  type RowRecords,
} from './report-rows';
import { createReportTexts } from './report-texts';
import { openPartition, type Partition } from './partitions';
import { nameTerms } from './term-ids';
import { FIGURE_FIELDS } from '../figure-fields';

/** Which load facts are of. A period is what rows without days are sums of: they replace all of its days. */
export type LoadKey = { accountId: number; reportFileId: number; period?: Period };

/** A report on its way into the database, within one transaction. */
export type Staging = {
  write(rows: readonly ReportRow[]): Promise<void>;
  /**
   * Moves what was written into the facts: elements that the report names and the mirror lacks are added with status
   * unknown; rows of one key are summed; what is there for the same key is replaced, and kept so that the load can be
   * taken back. The account must be locked.
   * @param pause is waited for between the steps; what it throws ends the merge
   */
  merge(
    load: LoadKey,
    pause: () => Promise<void>,
  ): Promise<{ added: number; replaced: number; newTerms: number }>;
};

/** Rows that are held in memory (64 bytes each); what is more waits in a table. */
const MOST_ROWS = 1_500_000;

/**
 * Takes the rows of a report. Terms and keywords are given numbers as they are met, so that rows are numbers and each
 * text goes over once. Mostly they are sorted and summed here, and go straight into the facts; a report that is too
 * large for that, or one of days that hold facts, takes the way over a table that lives as long as the transaction.
 */
export function openStaging(
  trx: Knex.Transaction,
  isProductCode: (raw: string) => boolean,
  mostRows = MOST_ROWS,
): Staging {
  const texts = createReportTexts(isProductCode);
  const rows = createReportRows();
  let isStaged = false;

  async function stage() {
    if (!isStaged) {
      await trx.raw(`
        create temporary table staged (
          day date, keyword integer, term integer, impressions bigint, clicks bigint, cost_micros bigint,
          conversions double precision, value_micros bigint
        ) on commit drop`);
    }
    isStaged = true;
    const { records } = rows.read();
    const columns: CopyColumn[] = [
      { name: 'day', type: 'date', valueOf: (row) => records[RECORD * row + DAY]! },
      { name: 'keyword', type: 'integer', valueOf: (row) => records[RECORD * row + KEYWORD]! },
      { name: 'term', type: 'integer', valueOf: (row) => records[RECORD * row + TERM]! },
      ...figureColumns(records),
    ];
    await copyRows(trx, 'staged', columns, rows.count);
    rows.clear();
  }

  return {
    async write(more) {
      for (const row of more) rows.add(row.day, texts.keywordOf(row), texts.termOf(row.term), row);
      if (rows.count >= mostRows) await stage();
    },
    async merge(load, pause) {
      // The planner knows nothing of what was just written, and would take its time to compile these few statements.
      await trx.raw(`set local jit = off; set local work_mem = '128MB'`);
      const keywords = await nameElements(trx, load.accountId, texts.keywords);
      await pause();
      const terms = await nameTerms(trx, load.accountId, texts.terms);
      await pause();
      const span = load.period ?? rows.span();
      const outcome = { added: 0, replaced: 0, newTerms: terms.added };
      if (!span) {
        await terms.finish();
        return outcome; // no row at all
      }
      await dropPackedDays(trx, load.accountId, span);
      const part = await openPartition(trx, 'term_day', load.accountId);
      const isFree = part.isNew || !(await holdsFacts(trx, load.accountId, span));
      if (isFree && !isStaged) {
        const ranks = { keywords: ranksOfKeywords(keywords), terms: ranksOf(terms.ids) };
        const sumSoon = async () => {
          await setImmediate();
          return sumRows(rows.read(), ranks);
        };
        // The database is asked first, and builds the keys of new terms while the rows are summed here.
        const [, sums] = await Promise.all([terms.finish(), sumSoon()]);
        await pause();
        await writeSums(trx, load, part, sums, { keywords, terms: terms.ids });
        await part.finish();
        return { ...outcome, added: sums.count };
      }
      await terms.finish();
      await stage();
      await stageTerms(trx, terms.ids);
      await pause();
      const key = {
        account: load.accountId,
        file: load.reportFileId,
        isPeriod: load.period !== undefined,
        ...span,
      };
      const replaced = isFree ? 0 : (await trx.raw<{ rowCount: number }>(REPLACE, key)).rowCount;
      const written = (await trx.raw<{ rowCount: number }>(writeInto(part), key)).rowCount;
      await part.finish();
      return { ...outcome, added: Math.max(0, written - replaced), replaced };
    },
  };
}

function figureColumns(records: Float64Array): CopyColumn[] {
  return FIGURE_FIELDS.map((name, f) => ({
    ...{ name, type: name === 'conversions' ? 'double' : 'bigint' },
    valueOf: (row) => records[RECORD * row + FIGURES + f]!,
  }));
}

/** Whether anything is known of some days. */
async function holdsFacts(trx: Knex.Transaction, accountId: number, { from, to }: Period): Promise<boolean> {
  const there = await trx('term_day')
    .where({ account_id: accountId })
    .whereBetween('day', [from, to])
    .first('day');
  return there !== undefined;
}

/** Writes sums into the facts as they are, in the order of the facts' key. */
async function writeSums(
  trx: Knex.Transaction,
  { accountId, reportFileId }: LoadKey,
  part: Partition,
  { records, count }: RowRecords,
  ids: { keywords: KeywordIds; terms: Int32Array },
) {
  const { adGroupId, keywordId } = ids.keywords;
  const columns: CopyColumn[] = [
    { name: 'account_id', type: 'integer', valueOf: () => accountId },
    { name: 'day', type: 'date', valueOf: (row) => records[RECORD * row + DAY]! },
    { name: 'ad_group_id', type: 'integer', valueOf: (row) => adGroupId[records[RECORD * row + KEYWORD]!]! },
    { name: 'keyword_id', type: 'integer', valueOf: (row) => keywordId[records[RECORD * row + KEYWORD]!]! },
    { name: 'term_id', type: 'integer', valueOf: (row) => ids.terms[records[RECORD * row + TERM]!]! },
    ...figureColumns(records),
    { name: 'report_file_id', type: 'integer', valueOf: () => reportFileId },
  ];
  await copyRows(trx, part.table, columns, count);
}

/** The terms that the numbers in the table `staged` stand for. */
async function stageTerms(trx: Knex.Transaction, termIds: Int32Array) {
  await trx.raw('create temporary table term_of (local integer, term_id integer) on commit drop');
  const columns: CopyColumn[] = [
    { name: 'local', type: 'integer', valueOf: (term) => term },
    { name: 'term_id', type: 'integer', valueOf: (term) => termIds[term]! },
  ];
  await copyRows(trx, 'term_of', columns, termIds.length);
  for (const table of ['staged', 'term_of']) await trx.raw('analyze ??', [table]);
}

/** Doubles add up faster than numerics, and exactly as long as a sum stays below 2^53 (9 thousand million in money). */
const writeInto = ({ table }: Partition) => `
  insert into ${table} (account_id, day, ad_group_id, keyword_id, term_id, ${FIGURE_FIELDS.join()}, report_file_id)
  select :account, s.day, k.ad_group_id, k.keyword_id, t.term_id,
         sum(s.impressions::float8), sum(s.clicks::float8), sum(s.cost_micros::float8), sum(s.conversions),
         sum(s.value_micros::float8), :file
    from staged s join keyword_of k on k.local = s.keyword join term_of t on t.local = s.term
   group by 2, 3, 4, 5 order by 2, 3, 4, 5`;

/** Removes the facts under the keys of the load, and keeps them for taking the load back. */
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
  insert into replaced_fact (account_id, report_file_id, was_of, day, ad_group_id, keyword_id, term_id, ${FIGURE_FIELDS.join()})
  select account_id, :file, report_file_id, day, ad_group_id, keyword_id, term_id, ${FIGURE_FIELDS.join()} from gone`;
