import type { Knex } from 'knex';
import { copyRows } from '../../db/copy';
import { openPart } from './parts';
import { orderBy } from './report-rows';
import type { NamedTerms } from './report-texts';

/**
 * Adds the terms of a report that the account has not met. The account must be locked: only a load adds terms.
 * @returns the id of each term, by its number, and how many are new
 */
export async function nameTerms(
  trx: Knex.Transaction,
  accountId: number,
  { keys, raws, kinds }: NamedTerms,
): Promise<{ ids: Int32Array; added: number }> {
  const part = await openPart(trx, 'term', accountId);
  const ids = part.isNew ? new Int32Array(keys.length) : await findTerms(trx, accountId, keys);
  const added = inAboutTheOrderOf(keys).filter((term) => ids[term] === 0);
  const first = await nextIds(trx, added.length);
  added.forEach((term, i) => (ids[term] = first + i));
  const rows = function* () {
    for (const t of added) yield [accountId, ids[t]!, keys[t]!, raws[t]!, kinds[t]!];
  };
  await copyRows(trx, part.table, ['account_id', 'term_id', 'key', 'raw', 'kind'], rows());
  await part.finish();
  return { ids, added: added.length };
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
  await copyRows(
    trx,
    'staged_term',
    ['local', 'key'],
    keys.map((key, term) => [term, key]),
  );
  await trx.raw('analyze staged_term');
  const { rows } = await trx.raw<{ rows: { local: number; term_id: number }[] }>(
    `select s.local, t.term_id from staged_term s join term t on (t.account_id, t.key) = (:account, s.key)`,
    { account: accountId },
  );
  for (const { local, term_id } of rows) ids[local] = term_id;
  return ids;
}

/** Takes ids that follow one another. @returns the first of them */
async function nextIds(trx: Knex.Transaction, count: number): Promise<number> {
  if (count === 0) return 0;
  for (;;) {
    const { rows } = await trx.raw<{ rows: { first: number; last: number }[] }>(
      `select min(id) as first, max(id) as last
         from (select nextval('term_id') as id from generate_series(1, ?)) as taken`,
      [count],
    );
    const { first, last } = rows[0]!;
    // Where another load took some at the same moment, there are gaps: then others are taken.
    if (last - first === count - 1) return first;
  }
}
