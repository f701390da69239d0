import type { Db } from '../../db/connection';
import { dropAllPacked } from '../columns/drop-packed';
import type { TermKind } from '../facts';
import { keyOfTerm } from './report-texts';
import { FIGURE_FIELDS } from '../figure-fields';

/** The terms of an account as they were first written, one by one. */
export function streamRawTerms(db: Db, accountId: number): AsyncIterable<RawTerm> {
  return db('term')
    .where({ account_id: accountId })
    .whereNot({ kind: 'unreported' })
    .orderBy('term_id')
    .select('term_id as id', 'key', 'raw', 'kind')
    .stream({ batchSize: 5_000, highWaterMark: 10_000 });
}

type RawTerm = { id: number; key: string; raw: string; kind: TermKind };

/**
 * Sorts the terms of an account into queries and product codes anew (rules 2.5), after its pattern has changed. A code
 * that becomes a query whose words are there already is the same term from then on: its facts move there. Where both
 * have facts of one day, ad group and keyword out of different loads, the term stays what it was, since neither load
 * could be taken back otherwise.
 * @returns how many terms are of another kind now
 */
export async function sortTermsAnew(
  trx: Db,
  accountId: number,
  isProductCode: (raw: string) => boolean,
): Promise<number> {
  const moved: { id: number; key: string; kind: TermKind }[] = [];
  for await (const { id, raw, kind } of streamRawTerms(trx, accountId)) {
    const is = keyOfTerm(raw, isProductCode);
    if (is.kind !== kind) moved.push({ id, ...is });
  }
  if (moved.length === 0) return 0;
  await trx.raw(
    `create temporary table moved_term (term_id integer primary key, key text collate "C", kind text) on commit drop`,
  );
  for (let at = 0; at < moved.length; at += 10_000) {
    const some = moved.slice(at, at + 10_000);
    await trx.raw(
      `insert into moved_term select * from unnest(cast(:ids as integer[]), cast(:keys as text[]), cast(:kinds as text[]))`,
      { ids: some.map((t) => t.id), keys: some.map((t) => t.key), kinds: some.map((t) => t.kind) },
    );
  }
  await trx.raw('analyze moved_term'); // the planner knows nothing of what was just written
  for (const statement of STATEMENTS) await trx.raw(statement, { account: accountId });
  await trx.raw('drop table moved_term, same_term');
  await dropAllPacked(trx, accountId);
  return moved.length;
}

const STATEMENTS = [
  // Which of them stands under the new key already; of several that move to one key, the oldest is meant by all.
  `create temporary table same_term on commit drop as
   select m.term_id, coalesce(t.term_id, first.term_id) as into_id
     from moved_term m
     join (select key, min(term_id) as term_id from moved_term group by key) first using (key)
     left join term t on t.account_id = :account and t.key = m.key and t.term_id not in (select term_id from moved_term)
    where coalesce(t.term_id, first.term_id) <> m.term_id`,
  'analyze same_term',
  // Facts of one place and day out of different loads must stay apart.
  `with apart as (
     select distinct s.term_id from same_term s
       join term_day a on a.account_id = :account and a.term_id = s.term_id
       join term_day b on b.account_id = :account and b.term_id = s.into_id
                      and (b.day, b.ad_group_id, b.keyword_id) = (a.day, a.ad_group_id, a.keyword_id)
                      and b.report_file_id is distinct from a.report_file_id
   ), left_out as (delete from moved_term m using apart where m.term_id = apart.term_id)
   delete from same_term s using apart where s.term_id = apart.term_id`,
  `insert into term_day as d (account_id, day, ad_group_id, keyword_id, term_id, ${FIGURE_FIELDS.join()}, report_file_id)
   select f.account_id, f.day, f.ad_group_id, f.keyword_id, s.into_id, ${FIGURE_FIELDS.map((f) => `sum(f.${f})`).join()},
          min(f.report_file_id)
     from same_term s join term_day f on f.account_id = :account and f.term_id = s.term_id
    group by 1, 2, 3, 4, 5
   on conflict (account_id, day, ad_group_id, keyword_id, term_id) do update set
     ${FIGURE_FIELDS.map((f) => `${f} = coalesce(d.${f} + excluded.${f}, d.${f}, excluded.${f})`).join()}`,
  `delete from term_day f using same_term s where f.account_id = :account and f.term_id = s.term_id`,
  `update replaced_fact f set term_id = s.into_id from same_term s
    where f.account_id = :account and f.term_id = s.term_id`,
  `delete from term t using same_term s where t.account_id = :account and t.term_id = s.term_id`,
  // Keys are free for each other only one after the other: first all get one that nothing else has.
  `update term t set key = t.term_id || chr(1), kind = m.kind from moved_term m
    where t.account_id = :account and t.term_id = m.term_id`,
  `update term t set key = m.key from moved_term m where t.account_id = :account and t.term_id = m.term_id`,
];
