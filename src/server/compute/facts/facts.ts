import { daysBetween, orderBy } from '@/core';
import type { Db } from '../../db/connection';
import { readFacts, type FactColumns } from '../../repositories/columns/fact-columns';
import { readTerms, type AccountTerms } from '../../repositories/columns/term-columns';
import { findDataDays } from '../../repositories/intake/reports';
import { FIGURE_COUNT } from '../figure-columns';
import { progressOf } from '../progress';

/**
 * Facts of an account as of one moment, by term, ad group and keyword: what windows and histories are summed from. They take 56
 * bytes each, and nobody keeps them.
 */
export type Facts = FactColumns & {
  /** all terms of the account */
  terms: AccountTerms;
  /** the first and the last day of which anything is known, of all there is; null before the first load */
  dataDays: { from: string; to: string } | null;
};

/**
 * Reads facts and terms, as of one moment.
 * @param within no other days are read; all unless given
 * @throws the signal's reason when it is aborted
 */
export async function loadFacts(
  db: Db,
  accountId: number,
  within?: { from: string; to: string },
  signal?: AbortSignal,
): Promise<Facts> {
  const onProgress = progressOf('days');
  const read = async (trx: Db) => {
    const dataDays = await findDataDays(trx, accountId);
    const facts = await readFacts(trx, accountId, within, signal, onProgress);
    return orderFacts(facts, await readTerms(trx, accountId, signal), dataDays);
  };
  if ('isTransaction' in db && db.isTransaction) return read(db); // it sees one moment already
  return db.transaction(read, { isolationLevel: 'repeatable read', readOnly: true });
}

/** Puts facts in order: what is summed together then stands together in memory. */
export function orderFacts(facts: FactColumns, terms: AccountTerms, dataDays: Facts['dataDays']): Facts {
  const order = orderBy(facts.termId, facts.adGroupId, facts.keywordId);
  const inOrder = (column: Int32Array) => {
    const ordered = new Int32Array(column.length);
    for (let f = 0; f < order.length; f++) ordered[f] = column[order[f]!]!;
    return ordered;
  };
  const figures = new Float64Array(facts.figures.length);
  for (let f = 0; f < order.length; f++)
    for (let [to, from, i] = [FIGURE_COUNT * f, FIGURE_COUNT * order[f]!, 0]; i < FIGURE_COUNT; i++)
      figures[to + i] = facts.figures[from + i]!;
  return {
    ...{ count: facts.count, day: inOrder(facts.day), termId: inOrder(facts.termId) },
    ...{ adGroupId: inOrder(facts.adGroupId), keywordId: inOrder(facts.keywordId), figures, terms, dataDays },
  };
}

/** A day as facts hold it. */
export const dayOf = (day: string): number => daysBetween('1970-01-01', day);

/**
 * Goes through the facts term by term.
 * @param take is told the id of a term, and that its facts are those from `begin` to before `end`
 */
export function eachTerm(
  { termId, count }: Facts,
  take: (id: number, begin: number, end: number) => void,
): void {
  for (let begin = 0; begin < count;) {
    const id = termId[begin]!;
    let end = begin + 1;
    while (end < count && termId[end] === id) end += 1;
    take(id, begin, end);
    begin = end;
  }
}
