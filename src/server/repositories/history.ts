import type { Db } from '../db/connection';
import type { TermKind } from './facts';

/** What a term brought in an ad group over many days; null where a figure is never given. */
export type HistoryRow = {
  termId: number;
  adGroupId: number;
  clicks: number | null;
  conversions: number | null;
  costMicros: number | null;
};

const STREAM = { batchSize: 5_000, highWaterMark: 10_000 };

/** The sums of each term in each ad group up to a day, ordered by term; never all of them in memory. */
export function streamHistory(db: Db, accountId: number, to: string): AsyncIterable<HistoryRow> {
  return db('term_day')
    .where({ account_id: accountId })
    .where('day', '<=', to)
    .groupBy('term_id', 'ad_group_id')
    .orderBy(['term_id', 'ad_group_id'])
    .select(
      'term_id as termId',
      'ad_group_id as adGroupId',
      db.raw('sum(clicks)::bigint as clicks'),
      db.raw('sum(conversions) as conversions'),
      db.raw('sum(cost_micros)::bigint as "costMicros"'),
    )
    .stream(STREAM);
}

/** All terms of an account, ordered by id. What the platform reports without a term is none. */
export function streamAllTerms(
  db: Db,
  accountId: number,
): AsyncIterable<{ id: number; key: string; kind: TermKind }> {
  return db('term')
    .where({ account_id: accountId })
    .whereNot('kind', 'unreported')
    .orderBy('term_id')
    .select('term_id as id', 'key', 'kind')
    .stream(STREAM);
}
