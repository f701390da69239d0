import type { Db } from '../db/connection';
import { copyOut } from '../db/copy-out';
import { kindOf, type TermBytes } from './facts';

/** What a term brought in an ad group over many days; NaN where a figure is never given. */
export type HistoryRow = {
  termId: number;
  adGroupId: number;
  clicks: number;
  conversions: number;
  costMicros: number;
};

/** Reads the sums of each term in each ad group up to a day, ordered by term, within a transaction; never all of them in memory. */
export function readHistory(
  trx: Db,
  accountId: number,
  to: string,
  take: (row: HistoryRow) => void,
  signal?: AbortSignal,
): Promise<void> {
  const query = trx('term_day')
    .where({ account_id: accountId })
    .where('day', '<=', to)
    .groupBy('term_id', 'ad_group_id')
    .orderBy(['term_id', 'ad_group_id'])
    .select('term_id', 'ad_group_id')
    .select(trx.raw('sum(clicks)::float8, sum(conversions)::float8, sum(cost_micros)::float8'));
  return copyOut(
    trx,
    query,
    (row) =>
      take({
        ...{ termId: row.integer(0), adGroupId: row.integer(1) },
        ...{ clicks: row.double(2), conversions: row.double(3), costMicros: row.double(4) },
      }),
    signal,
  );
}

/** Reads all terms of an account, ordered by id, within a transaction. What the platform reports without a term is none. */
export function readAllTerms(
  trx: Db,
  accountId: number,
  take: (term: Omit<TermBytes, 'raw'>) => void,
  signal?: AbortSignal,
): Promise<void> {
  const query = trx('term')
    .where({ account_id: accountId })
    .whereNot('kind', 'unreported')
    .orderBy('term_id')
    .select('term_id', 'kind', 'key');
  return copyOut(
    trx,
    query,
    (row) => take({ id: row.integer(0), kind: kindOf(row, 1), key: row.bytes(2) }),
    signal,
  );
}
