import type { Knex } from 'knex';
import type { KeywordRow } from '@/core';
import { copyRows, dayNumber, type CopyColumn } from '../../db/copy';
import { FIGURE_FIELDS } from '../figure-fields';
import { nameElements } from './name-elements';
import { createReportTexts } from './report-texts';
import type { LoadKey } from './staging';

/** A keyword report on its way into the database, within one transaction. */
export type KeywordStaging = {
  write(rows: readonly KeywordRow[]): Promise<void>;
  /**
   * Moves what was written into the figures of keywords: elements that the report names and the mirror lacks are added
   * with status unknown; rows of one keyword and day are summed; figures of an earlier load for the same keyword and
   * day are superseded, and hold again when this load is taken back. The account must be locked.
   */
  merge(load: LoadKey): Promise<{ added: number; replaced: number; newTerms: number }>;
};

/** Rows from which on it is worth to tell the planner of them. */
const MANY = 1_000;

export function openKeywordStaging(trx: Knex.Transaction): KeywordStaging {
  const texts = createReportTexts(() => false);
  let isStaged = false;

  async function open() {
    await trx.raw(`
      create temporary table staged_day (
        day date, keyword integer, impressions bigint, clicks bigint, cost_micros bigint, conversions double precision,
        value_micros bigint, bid_micros bigint, impression_share double precision, quality double precision
      ) on commit drop;
      create temporary table staged_kind (day date, keyword integer, kind text, conversions double precision)
        on commit drop`);
    isStaged = true;
  }

  return {
    async write(rows) {
      if (!isStaged) await open();
      const keywords = rows.map((row) => texts.keywordOf(row));
      await copyRows(trx, 'staged_day', dayColumns(rows, keywords), rows.length);
      const kinds = rows.flatMap(({ day, otherConversions }, row) =>
        Object.entries(otherConversions).map(([kind, conversions]) => ({
          ...{ day: dayNumber(day), keyword: keywords[row]!, kind, conversions },
        })),
      );
      await copyRows(trx, 'staged_kind', kindColumns(kinds), kinds.length);
    },
    async merge({ accountId, reportFileId, period }) {
      const outcome = { added: 0, replaced: 0, newTerms: 0 };
      if (!isStaged) return outcome;
      await trx.raw(`set local jit = off; set local work_mem = '128MB'`);
      await nameElements(trx, accountId, texts.keywords);
      await trx.raw('analyze staged_day');
      const key = { account: accountId, file: reportFileId };
      const days = { from: period?.from ?? null, to: period?.to ?? null };
      const written = (await trx.raw<{ rowCount: number }>(WRITE_DAYS, { ...key, from: days.from })).rowCount;
      await trx.raw(WRITE_KINDS, key);
      // Of what was just written the planner knows nothing: it would hold each kind of conversion against a whole load.
      if (written >= MANY) await trx.raw('analyze keyword_day, keyword_day_kind');
      const replaced = (await trx.raw<{ rowCount: number }>(SUPERSEDE, { ...key, ...days })).rowCount;
      return { ...outcome, added: Math.max(0, written - replaced), replaced };
    },
  };
}

function dayColumns(rows: readonly KeywordRow[], keywords: readonly number[]): CopyColumn[] {
  const bigint = (name: string, of: (row: KeywordRow) => number | null): CopyColumn => ({
    ...{ name, type: 'bigint', valueOf: (row) => of(rows[row]!) ?? NaN },
  });
  const double = (name: string, of: (row: KeywordRow) => number | null): CopyColumn => ({
    ...{ name, type: 'double', valueOf: (row) => of(rows[row]!) ?? NaN },
  });
  return [
    { name: 'day', type: 'date', valueOf: (row) => dayNumber(rows[row]!.day) },
    { name: 'keyword', type: 'integer', valueOf: (row) => keywords[row]! },
    bigint('impressions', ({ impressions }) => impressions),
    bigint('clicks', ({ clicks }) => clicks),
    bigint('cost_micros', ({ costMicros }) => costMicros),
    double('conversions', ({ conversions }) => conversions),
    bigint('value_micros', ({ valueMicros }) => valueMicros),
    bigint('bid_micros', ({ bidMicros }) => bidMicros),
    double('impression_share', ({ impressionShare }) => impressionShare),
    double('quality', ({ quality }) => quality),
  ];
}

type KindRow = { day: number; keyword: number; kind: string; conversions: number };

function kindColumns(kinds: readonly KindRow[]): CopyColumn[] {
  return [
    { name: 'day', type: 'date', valueOf: (row) => kinds[row]!.day },
    { name: 'keyword', type: 'integer', valueOf: (row) => kinds[row]!.keyword },
    { name: 'kind', type: 'text', valueOf: (row) => kinds[row]!.kind },
    { name: 'conversions', type: 'double', valueOf: (row) => kinds[row]!.conversions },
  ];
}

/**
 * Shares of several rows weigh by the impressions that could have been had (rules 5.7); of bids and ratings that differ
 * within one day, the highest is kept.
 */
const WRITE_DAYS = `
  insert into keyword_day (account_id, keyword_id, day, from_day, report_file_id, ${FIGURE_FIELDS.join()}, bid_micros,
                           impression_share, quality)
  select :account, k.keyword_id, s.day, coalesce(cast(:from as date), s.day), :file,
         sum(s.impressions::float8), sum(s.clicks::float8), sum(s.cost_micros::float8), sum(s.conversions),
         sum(s.value_micros::float8), max(s.bid_micros),
         coalesce(sum(s.impressions) filter (where s.impression_share > 0)
                    / nullif(sum(s.impressions / s.impression_share) filter (where s.impression_share > 0), 0),
                  avg(s.impression_share)),
         max(s.quality)
    from staged_day s join keyword_of k on k.local = s.keyword
   group by 2, 3`;

const WRITE_KINDS = `
  insert into keyword_day_kind (account_id, keyword_id, day, report_file_id, kind, conversions)
  select :account, k.keyword_id, s.day, :file, s.kind, sum(s.conversions)
    from staged_kind s join keyword_of k on k.local = s.keyword
   group by 2, 3, 5`;

/** A file of a period takes the place of all that its keywords had in the days of that period. */
const SUPERSEDE = `
  update keyword_day o set superseded_by = :file
    from keyword_day n
   where n.account_id = :account and n.report_file_id = :file
     and o.account_id = :account and o.keyword_id = n.keyword_id and o.report_file_id <> :file
     and o.superseded_by is null
     and (o.day = n.day or o.day between cast(:from as date) and cast(:to as date))`;
