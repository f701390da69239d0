import {
  buildTermTable,
  compileAccountGate,
  layGate,
  lookBack,
  type AccountGate,
  type MatchType,
  type RowGate,
  type ServedRows,
  type TermTable,
  type Window,
} from '@/core';
import type { Db } from '../db/connection';
import type { Account } from '../repositories/accounts';
import {
  loadConvertingTerms,
  loadSpendByDay,
  loadTermsOfWindow,
  loadWindow,
  type DaySpend,
  type Term,
  type WindowRow,
} from '../repositories/facts';
import { findDataDays } from '../repositories/reports';
import {
  loadMirror,
  shapeOf,
  type AdGroup,
  type Campaign,
  type Keyword,
  type Mirror,
} from '../repositories/structure';

/** A keyword that is effectively live, with where it stands. */
export type LiveKeyword = Keyword & { match: MatchType; adGroup: AdGroup };

/** An account's window in memory, and what is made from it once. Never changed after it is built. */
export type Snapshot = {
  window: Window;
  /** null before the first load */
  dataDays: { from: string; to: string } | null;
  mirror: Mirror;
  campaign: ReadonlyMap<string, Campaign>;
  adGroup: ReadonlyMap<string, AdGroup>;
  keyword: ReadonlyMap<string, Keyword>;
  /** row r of `rows`, in the order of `served` */
  rows: readonly WindowRow[];
  /** term t of `served`; product codes and the like have no words there */
  terms: readonly Term[];
  /** id of a term → its index in `terms` */
  termIndex: ReadonlyMap<number, number>;
  termOfRow: Uint32Array;
  /** spend of each day of the window */
  days: readonly DaySpend[];
  served: ServedRows;
  /** the mirror's negatives over the rows */
  gate: RowGate;
  accountGate: AccountGate;
  liveKeywords: readonly LiveKeyword[];
  liveKeyword: ReadonlyMap<string, LiveKeyword>;
  liveKeywordTable: TermTable;
  /** texts that converted often enough in all the data there is */
  converting: readonly string[];
  hasConverted: ReadonlySet<string>;
  convertingTable: TermTable;
};

/** Builds the snapshot of a window, or of the account's look-back when none is given. */
export async function buildSnapshot(
  db: Db,
  account: Account,
  days: number,
  exact?: Window,
): Promise<Snapshot> {
  const dataDays = await findDataDays(db, account.id);
  const window = exact ?? lookBack(dataDays?.to ?? '1990-01-01', days, account.lagDays);
  const [mirror, rows, terms, spendOfDays, converting] = await Promise.all([
    loadMirror(db, account.id),
    loadWindow(db, account.id, window),
    loadTermsOfWindow(db, account.id, window),
    loadSpendByDay(db, account.id, window),
    loadConvertingTerms(db, account.id, account.keeperConversions),
  ]);
  const campaign = new Map(mirror.campaigns.map((c) => [c.id, c]));
  const adGroup = new Map(mirror.adGroups.map((g) => [g.id, g]));
  const termIndex = new Map(terms.map((term, t) => [term.id, t]));
  const { served, termOfRow } = layRows(mirror, rows, termIndex, terms);
  const shape = shapeOf(mirror);
  const liveKeywords = findLiveKeywords(mirror, campaign, adGroup);
  return {
    ...{
      window,
      dataDays,
      mirror,
      campaign,
      adGroup,
      rows,
      terms,
      termIndex,
      termOfRow,
      days: spendOfDays,
      served,
      liveKeywords,
      converting,
    },
    keyword: new Map(mirror.keywords.map((k) => [k.id, k])),
    gate: layGate(served, shape),
    accountGate: compileAccountGate(shape),
    liveKeyword: new Map(liveKeywords.map((k) => [k.id, k])),
    hasConverted: new Set(converting),
    liveKeywordTable: buildTermTable(liveKeywords.map((k) => k.text)),
    convertingTable: buildTermTable(converting),
  };
}

function layRows(
  mirror: Mirror,
  rows: readonly WindowRow[],
  termIndex: ReadonlyMap<number, number>,
  terms: readonly Term[],
) {
  const groupIndex = new Map(mirror.adGroups.map((group, g) => [Number(group.id), g]));
  const termOfRow = Uint32Array.from(rows, (row) => termIndex.get(row.termId)!);
  const rowStarts = new Uint32Array(terms.length + 1);
  for (const t of termOfRow) rowStarts[t + 1]! += 1;
  for (let t = 0; t < terms.length; t++) rowStarts[t + 1]! += rowStarts[t]!;
  const served: ServedRows = {
    // Only queries have words: a negative never stops a product code or the unreported rest.
    table: buildTermTable(terms.map((term) => (term.kind === 'query' ? term.key : ''))),
    rowStarts,
    adGroupOf: Uint32Array.from(rows, (row) => groupIndex.get(row.adGroupId)!),
    adGroups: mirror.adGroups,
  };
  return { served, termOfRow };
}

/** Effectively live keywords (rules 5.1). What only a report has named was served, so it counts as live. */
function findLiveKeywords(
  mirror: Mirror,
  campaign: ReadonlyMap<string, Campaign>,
  adGroup: ReadonlyMap<string, AdGroup>,
): LiveKeyword[] {
  const isLive = (element: { status: string } | undefined) =>
    element?.status === 'live' || element?.status === 'unknown';
  return mirror.keywords.flatMap((keyword) => {
    const group = adGroup.get(keyword.adGroupId);
    const { match } = keyword;
    if (match === 'automatic' || match === 'unknown' || !group) return [];
    const live = isLive(keyword) && isLive(group) && isLive(campaign.get(group.campaignId));
    return live ? [{ ...keyword, match, adGroup: group }] : [];
  });
}
