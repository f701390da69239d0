import { shiftDay } from '@/core';
import type { Db } from '../../db/connection';
import type { Account } from '../../repositories/account/accounts';
import type { TermBytes } from '../../repositories/facts';
import { readAllTerms, readHistory, type HistoryRow } from '../../repositories/history';
import { findDataDays } from '../../repositories/intake/reports';
import { column, sharedNumbers, texts } from '../shared-columns';
import { codeOfKind, keyAt, kindAt, type TermColumns } from '../window-columns';

/**
 * What each term brought over all days that are kept, less the lag: by it evidence is weighed (rules 7.3, 7.12), whatever
 * window is looked at. Columns that threads share.
 */
export type History = {
  /** null before the first load */
  days: { from: string; to: string } | null;
  terms: Pick<TermColumns, 'count' | 'ids' | 'kinds' | 'keyStarts' | 'keys'>;
  rows: HistoryRows;
};

/** Row r is (term, ad group); rows stand by term. Figures that are never given are NaN. */
export type HistoryRows = {
  count: number;
  /** index of the term */
  termOf: Uint32Array;
  adGroupId: Uint32Array;
  clicks: Float64Array;
  conversions: Float64Array;
  costMicros: Float64Array;
};

/**
 * Reads the history of an account in streams.
 * @throws the signal's reason when it is aborted
 */
export async function loadHistory(db: Db, account: Account, signal?: AbortSignal): Promise<History> {
  const read = async (trx: Db) => {
    const dataDays = await findDataDays(trx, account.id);
    const history = collectHistory();
    if (!dataDays) return history.finish(null);
    const to = shiftDay(dataDays.to, -account.lagDays);
    await readAllTerms(trx, account.id, history.addTerm, signal);
    await readHistory(trx, account.id, to, history.addRow, signal);
    return history.finish({ from: dataDays.from, to });
  };
  if ('isTransaction' in db && db.isTransaction) return read(db);
  return db.transaction(read, { isolationLevel: 'repeatable read', readOnly: true });
}

/** Takes terms in order of their ids, then rows in order of their terms; rows of other terms are passed over. */
export function collectHistory() {
  const [kinds, keys] = [column(), texts()];
  const ids: number[] = [];
  const rows = {
    ...{ termOf: column(), adGroupId: column() },
    ...{ clicks: column(), conversions: column(), costMicros: column() },
  };
  let at = 0; // terms and rows come in the same order
  return {
    addTerm({ id, key, kind }: Omit<TermBytes, 'raw'>) {
      ids.push(id);
      kinds.push(codeOfKind(kind));
      keys.push(key);
    },
    addRow({ termId, adGroupId, clicks, conversions, costMicros }: HistoryRow) {
      while (at < ids.length && ids[at]! < termId) at += 1;
      if (ids[at] !== termId) return;
      rows.termOf.push(at);
      rows.adGroupId.push(adGroupId);
      rows.clicks.push(clicks);
      rows.conversions.push(conversions);
      rows.costMicros.push(costMicros);
    },
    finish(days: History['days']): History {
      const { starts, bytes } = keys.finish();
      return {
        days,
        terms: {
          count: ids.length,
          ids: sharedNumbers(ids),
          kinds: kinds.into(Uint8Array),
          ...{ keyStarts: starts, keys: bytes },
        },
        rows: {
          count: rows.termOf.length(),
          termOf: rows.termOf.into(Uint32Array),
          adGroupId: rows.adGroupId.into(Uint32Array),
          clicks: rows.clicks.into(Float64Array),
          conversions: rows.conversions.into(Float64Array),
          costMicros: rows.costMicros.into(Float64Array),
        },
      };
    },
  };
}

/** The text of each term that is a query; empty for what holds no words. */
export function queryTexts({ terms }: History): string[] {
  return Array.from({ length: terms.count }, (_, t) => (kindAt(terms, t) === 'query' ? keyAt(terms, t) : ''));
}
