import type { Knex } from 'knex';
import { orderBy } from '@/core';
import { copyRows, type CopyColumn } from '../../db/copy';
import { findNewestTermId } from '../decisions/passes';
import { openPartition, type Partition } from './partitions';
import type { NamedTerms } from './report-texts';

/**
 * Adds the terms of a report that the account has not met. The account must be locked: only a load adds terms.
 * @returns the id of each term, by its number; how many are new; and what is to be called before any of them is read
 */
export async function nameTerms(
  trx: Knex.Transaction,
  accountId: number,
  { keys, raws, kinds }: NamedTerms,
): Promise<{ ids: Int32Array; added: number; finish: Partition['finish'] }> {
  const part = await openPartition(trx, 'term', accountId);
  const ids = part.isNew ? new Int32Array(keys.length) : await findTerms(trx, accountId, keys);
  const added = inAboutTheOrderOf(keys).filter((term) => ids[term] === 0);
  const newest = part.isNew ? 0 : await findNewestTermId(trx, accountId);
  added.forEach((term, i) => (ids[term] = newest + 1 + i));
  const columns: CopyColumn[] = [
    { name: 'account_id', type: 'integer', valueOf: () => accountId },
    { name: 'term_id', type: 'integer', valueOf: (row) => ids[added[row]!]! },
    { name: 'key', type: 'text', valueOf: (row) => keys[added[row]!]! },
    { name: 'raw', type: 'text', valueOf: (row) => raws[added[row]!]! },
    { name: 'kind', type: 'text', valueOf: (row) => kinds[added[row]!]! },
  ];
  await copyRows(trx, part.table, columns, added.length);
  return { ids, added: added.length, finish: part.finish };
}

/** Texts by their first four characters: an index grows faster when what enters it stands close together. */
function inAboutTheOrderOf(texts: readonly string[]): Uint32Array {
  const byte = (text: string, i: number) => Math.min(text.charCodeAt(i) || 0, 127);
  return orderBy(
    Int32Array.from(texts, (of) => [0, 1, 2, 3].reduce((head, i) => (head << 7) | byte(of, i), 0)),
  );
}

/** @returns the id of each term that is there, 0 for the others */
async function findTerms(
  trx: Knex.Transaction,
  accountId: number,
  keys: readonly string[],
): Promise<Int32Array> {
  const ids = new Int32Array(keys.length);
  await trx.raw(`create temporary table staged_term (local integer, key text collate "C") on commit drop`);
  const columns: CopyColumn[] = [
    { name: 'local', type: 'integer', valueOf: (term) => term },
    { name: 'key', type: 'text', valueOf: (term) => keys[term]! },
  ];
  await copyRows(trx, 'staged_term', columns, keys.length);
  await trx.raw('analyze staged_term');
  const { rows } = await trx.raw<{ rows: { local: number; term_id: number }[] }>(
    `select s.local, t.term_id from staged_term s join term t on (t.account_id, t.key) = (:account, s.key)`,
    { account: accountId },
  );
  for (const { local, term_id } of rows) ids[local] = term_id;
  return ids;
}
