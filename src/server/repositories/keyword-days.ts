import type { Figures, Window } from '@/core';
import type { Db } from '../db/connection';
import { FIGURE_FIELDS } from './figure-fields';

/** What the keyword reports of some days tell of a keyword. */
export type KeywordFigures = Figures & {
  /** as of the last day on which it is told; micro-units */
  bidMicros: number | null;
  quality: number | null;
  /** 0..1, over all days by the impressions that could have been had (rules 5.7) */
  impressionShare: number | null;
  /** further kinds of conversion by their names */
  otherConversions: Record<string, number>;
};

/** The figures of keywords in some days, by their ids, and the days that they are of; empty where no report tells. */
export async function sumKeywordDays(
  db: Db,
  accountId: number,
  { from, to }: Window,
): Promise<{ figures: Map<string, KeywordFigures>; days: Window | null }> {
  const rows = await db('keyword_day')
    .where({ account_id: accountId })
    .whereNull('superseded_by')
    .whereBetween('day', [from, to])
    .groupBy('keyword_id')
    .select(
      'keyword_id',
      ...FIGURE_FIELDS.map((field) => db.raw('sum(??::float8) as ??', [field, field])),
      db.raw('min(from_day) as first_day, max(day) as last_day'),
      ...['bid_micros', 'quality'].map((field) =>
        db.raw('(array_agg(?? order by day desc) filter (where ?? is not null))[1] as ??', [
          ...[field, field, field],
        ]),
      ),
      db.raw(`
        coalesce(sum(impressions) filter (where impression_share > 0)
                   / nullif(sum(impressions / impression_share) filter (where impression_share > 0), 0),
                 avg(impression_share)) as impression_share`),
    );
  const figures = new Map<string, KeywordFigures>();
  let days: Window | null = null;
  for (const row of rows) {
    figures.set(String(row.keyword_id), {
      ...{ impressions: row.impressions, clicks: row.clicks, costMicros: row.cost_micros },
      ...{ conversions: row.conversions, valueMicros: row.value_micros, bidMicros: row.bid_micros },
      ...{ quality: row.quality, impressionShare: row.impression_share, otherConversions: {} },
    });
    days = {
      from: days === null || row.first_day < days.from ? row.first_day : days.from,
      to: days === null || row.last_day > days.to ? row.last_day : days.to,
    };
  }
  const kinds = await db('keyword_day_kind as k')
    .join('keyword_day as d', function () {
      for (const column of ['account_id', 'keyword_id', 'day', 'report_file_id'])
        this.andOn(`d.${column}`, `k.${column}`);
    })
    .where({ 'k.account_id': accountId })
    .whereNull('d.superseded_by')
    .whereBetween('k.day', [from, to])
    .groupBy('k.keyword_id', 'k.kind')
    .select('k.keyword_id', 'k.kind', db.raw('sum(k.conversions) as conversions'));
  for (const row of kinds) figures.get(String(row.keyword_id))!.otherConversions[row.kind] = row.conversions;
  return { figures, days };
}

/** The further kinds of conversion that the reports of an account have told of, in the order of their names. */
export async function listConversionKinds(db: Db, accountId: number): Promise<string[]> {
  return db('keyword_day_kind').where({ account_id: accountId }).distinct().orderBy('kind').pluck('kind');
}

/** The newest load that supersedes figures of another one, if any. */
export async function findSuperseder(
  db: Db,
  accountId: number,
  reportFileId: number,
): Promise<string | undefined> {
  const row = await db('report_file')
    .where({ account_id: accountId })
    .whereIn(
      'report_file_id',
      db('keyword_day')
        .where({ account_id: accountId, report_file_id: reportFileId })
        .whereNotNull('superseded_by')
        .select('superseded_by'),
    )
    .orderBy('report_file_id', 'desc')
    .first<{ name: string } | undefined>('name');
  return row?.name;
}

/** Takes the figures of a load away; what it superseded holds again. */
export async function takeKeywordDaysBack(
  db: Db,
  accountId: number,
  reportFileId: number,
): Promise<{ removed: number; restored: number }> {
  const removed = await db('keyword_day')
    .where({ account_id: accountId, report_file_id: reportFileId })
    .delete();
  const restored = await db('keyword_day')
    .where({ account_id: accountId, superseded_by: reportFileId })
    .update({ superseded_by: null });
  return { removed, restored };
}
