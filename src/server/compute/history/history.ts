import { textsIn } from '../shared-columns';
import { keyAt, kindAt, type TermColumns } from '../window-columns';

/**
 * What each term brought over all days that are kept, less the lag: by it evidence is weighed (rules 7.3, 7.12), whatever
 * window is looked at. Columns that threads share.
 */
export type History = {
  /** null before the first load */
  days: { from: string; to: string } | null;
  terms: Pick<TermColumns, 'count' | 'ids' | 'kinds' | 'keyStarts' | 'keys'>;
  rows: HistoryRows;
  /** conversions of each term over all days, those of the lag too: by them terms are protected (rules 6) */
  earned: Float64Array;
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
  impressions: Float64Array;
  /** on which it was served there; a day counts for each keyword that served it */
  days: Uint32Array;
  /** the keyword that served it on the most days */
  keywordId: Uint32Array;
};

/** The text of each term that is a query; empty for what holds no words. */
export function queryTexts({ terms }: History): string[] {
  return textsIn(terms.keys, terms.keyStarts, (t) => kindAt(terms, t) === 'query');
}

/**
 * Texts of the queries that converted at least so often in all the data there is (rules 6), in order.
 * @param keeper null: no term is protected for what it brought
 */
export function convertingTexts({ terms, earned }: History, keeper: number | null): string[] {
  if (keeper === null) return [];
  const found: string[] = [];
  for (let t = 0; t < terms.count; t++)
    if (earned[t]! >= keeper && kindAt(terms, t) === 'query') found.push(keyAt(terms, t));
  return found.sort();
}
