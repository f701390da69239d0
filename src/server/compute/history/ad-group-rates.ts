import { breakEvenCvr, probabilityMissesTarget, shrinkRates, type AdGroupRates, type Prior } from '@/core';
import { derivedFrom } from '../derived';
import { kindAt } from '../window-columns';
import type { History } from './history';

/** Ad groups of a history with what they brought, and the rates that are expected of them (rules 7.12). */
export type AdGroups = {
  /** id of an ad group → its index */
  indexOf: ReadonlyMap<number, number>;
  clicks: Float64Array;
  conversions: Float64Array;
  costMicros: Float64Array;
  /** null where nothing converted: then nobody is judged */
  shrunk: AdGroupRates | null;
};

/** Whether a row counts: a query whose clicks and conversions are known. */
export function isJudged({ terms, rows }: History, r: number): boolean {
  return kindAt(terms, rows.termOf[r]!) === 'query' && rows.clicks[r]! >= 0 && rows.conversions[r]! >= 0;
}

/** Conversions of a row, at most its clicks. */
export const brought = ({ rows }: History, r: number) => Math.min(rows.conversions[r]!, rows.clicks[r]!);

export const adGroupsOf: (history: History) => AdGroups = derivedFrom((history: History) => {
  const { rows } = history;
  const indexOf = new Map<number, number>();
  for (const id of rows.adGroupId) if (!indexOf.has(id)) indexOf.set(id, indexOf.size);
  const sums = () => new Float64Array(indexOf.size);
  const [clicks, conversions, costMicros] = [sums(), sums(), sums()];
  for (let r = 0; r < rows.count; r++) {
    if (!isJudged(history, r)) continue;
    const g = indexOf.get(rows.adGroupId[r]!)!;
    clicks[g]! += rows.clicks[r]!;
    conversions[g]! += brought(history, r);
    costMicros[g]! += rows.costMicros[r]! || 0;
  }
  return { indexOf, clicks, conversions, costMicros, shrunk: shrinkRates(clicks, conversions) };
});

/** What is known of an ad group as a whole (rules 7.13). */
export type AdGroupStanding = {
  clicks: number;
  conversions: number;
  /** conversions a click that are expected of it */
  rate: number;
  /** that it misses the target by what its own clicks cost; NaN without a target */
  misses: number;
  /** of the rates of all ad groups, against which its own clicks are read */
  prior: Prior;
};

/**
 * How an ad group stands as a whole.
 * @param worthMicros of a conversion at the target; null without one
 * @returns undefined for one that has no click, or where nothing converted in the account
 */
export function standingOf(
  history: History,
  adGroupId: number,
  worthMicros: number | null,
): AdGroupStanding | undefined {
  const { indexOf, shrunk, ...of } = adGroupsOf(history);
  const g = indexOf.get(adGroupId);
  if (g === undefined || !shrunk || of.clicks[g] === 0) return undefined;
  const [clicks, conversions] = [of.clicks[g]!, of.conversions[g]!];
  const prior: Prior = { alpha: shrunk.mean * shrunk.strength, beta: (1 - shrunk.mean) * shrunk.strength };
  const rate = breakEvenCvr(of.costMicros[g]! / clicks, { by: 'CPA', micros: worthMicros });
  return {
    ...{ clicks, conversions, rate: shrunk.rates[g]!, prior },
    misses:
      rate === null ? NaN : probabilityMissesTarget({ ...prior, clicks, conversions, breakEvenCvr: rate }),
  };
}
