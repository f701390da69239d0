import {
  buildTermTable,
  codeKey,
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
import type { Account } from '../repositories/account/accounts';
import {
  loadConvertingTerms,
  loadSpendByDay,
  readTerms,
  readWindow,
  type DaySpend,
  type TermBytes,
} from '../repositories/facts';
import { loadOwnTargets, type OwnTargets } from '../repositories/account/own-targets';
import { findDataDays } from '../repositories/intake/reports';
import {
  loadMirror,
  shapeOf,
  type AdGroup,
  type Campaign,
  type Keyword,
  type Mirror,
} from '../repositories/structure/structure';
import type { History } from './history/history';
import {
  collectRows,
  collectTerms,
  costAt,
  keyAt,
  kindAt,
  type RowColumns,
  type TermColumns,
} from './window-columns';

/** A keyword that is effectively live, with where it stands. */
export type LiveKeyword = Keyword & { match: MatchType; adGroup: AdGroup };

/** What a snapshot is made from: columns that threads share, and what is small. Can be sent from thread to thread. */
export type SnapshotData = {
  window: Window;
  /** null before the first load */
  dataDays: { from: string; to: string } | null;
  mirror: Mirror;
  /** of campaigns and product groups; few accounts have any */
  ownTargets: OwnTargets;
  rows: RowColumns;
  terms: TermColumns;
  /** spend of each day of the window */
  days: readonly DaySpend[];
  /** texts that converted often enough in all the data there is */
  converting: readonly string[];
};

/** An account's window in memory, and what is made from it once. Never changed after it is built. */
export type Snapshot = SnapshotData & {
  /** what the terms brought over all days that are kept */
  history: History;
  campaign: ReadonlyMap<string, Campaign>;
  adGroup: ReadonlyMap<string, AdGroup>;
  keyword: ReadonlyMap<string, Keyword>;
  negative: ReadonlyMap<string, Mirror['negatives'][number]>;
  /** id of a term → its index among the terms */
  termIndex: ReadonlyMap<number, number>;
  /** the rows as the core sees them; product codes and the like have no words there */
  served: ServedRows;
  /** the mirror's negatives over the rows */
  gate: RowGate;
  accountGate: AccountGate;
  liveKeywords: readonly LiveKeyword[];
  liveKeyword: ReadonlyMap<string, LiveKeyword>;
  liveKeywordTable: TermTable;
  hasConverted: ReadonlySet<string>;
  convertingTable: TermTable;
};

/** The days of an account's look-back, or the exact window, beside the days that there are. */
export async function windowOf(
  db: Db,
  account: Account,
  days: number,
  exact?: Window,
): Promise<Pick<SnapshotData, 'window' | 'dataDays'>> {
  const dataDays = await findDataDays(db, account.id);
  return { dataDays, window: exact ?? lookBack(dataDays?.to ?? '1990-01-01', days, account.lagDays) };
}

/**
 * Reads a window from the database in streams, or the account's look-back when none is given, as of one moment.
 * @throws the signal's reason when it is aborted
 */
export async function loadSnapshotData(
  db: Db,
  account: Account,
  days: number,
  exact?: Window,
  signal?: AbortSignal,
): Promise<SnapshotData> {
  const read = async (trx: Db): Promise<SnapshotData> => {
    const { window, dataDays } = await windowOf(trx, account, days, exact);
    const mirror = await loadMirror(trx, account.id);
    const ownTargets = await loadOwnTargets(trx, account.id);
    const terms = collectTerms();
    const termIndex = new Map<number, number>();
    const takeTerm = (term: TermBytes) => {
      termIndex.set(term.id, termIndex.size);
      terms.add(term);
    };
    await readTerms(trx, account.id, window, takeTerm, signal);
    const rows = collectRows((termId) => termIndex.get(termId)!);
    await readWindow(trx, account.id, window, rows.add, signal);
    const spend = await loadSpendByDay(trx, account.id, window);
    const converting = await loadConvertingTerms(trx, account.id, account.keeperConversions);
    return {
      ...{ window, dataDays, mirror, ownTargets, days: spend, converting },
      ...{ rows: rows.finish(), terms: terms.finish() },
    };
  };
  if ('isTransaction' in db && db.isTransaction) return read(db); // it sees one moment already
  return db.transaction(read, { isolationLevel: 'repeatable read', readOnly: true });
}

/** Makes from the data what requests need: indexes, gates, the account's negatives laid over the rows. */
export function openSnapshot(data: SnapshotData, history: History): Snapshot {
  const { mirror, terms, converting } = data;
  const campaign = new Map(mirror.campaigns.map((c) => [c.id, c]));
  const adGroup = new Map(mirror.adGroups.map((g) => [g.id, g]));
  const served = layRows(data);
  const shape = shapeOf(mirror);
  const liveKeywords = findLiveKeywords(mirror, campaign, adGroup);
  return {
    ...data,
    ...{ history, campaign, adGroup, served, liveKeywords },
    keyword: new Map(mirror.keywords.map((k) => [k.id, k])),
    negative: new Map(mirror.negatives.map((n) => [n.id, n])),
    termIndex: new Map(Array.from(terms.ids, (id, t) => [id, t])),
    gate: layGate(served, shape),
    accountGate: compileAccountGate(shape),
    liveKeyword: new Map(liveKeywords.map((k) => [k.id, k])),
    hasConverted: new Set(converting),
    liveKeywordTable: buildTermTable(liveKeywords.map((k) => k.text)),
    convertingTable: buildTermTable(converting),
  };
}

/** Rows of a term, as they stand. */
export function rowsOfTerm({ served: { rowStarts } }: Pick<Snapshot, 'served'>, t: number): number[] {
  const first = rowStarts[t]!;
  return Array.from({ length: rowStarts[t + 1]! - first }, (_, i) => first + i);
}

/** The costliest of some rows, of equals the first. */
export function costliestOf({ rows }: Pick<Snapshot, 'rows'>, indexes: readonly number[]): number {
  return indexes.reduce((best, r) => (costAt(rows, r) > costAt(rows, best) ? r : best));
}

function layRows({ mirror, rows, terms }: SnapshotData): ServedRows {
  const groupIndex = new Map(mirror.adGroups.map((group, g) => [Number(group.id), g]));
  const rowStarts = new Uint32Array(terms.count + 1);
  for (const t of rows.termOf) rowStarts[t + 1]! += 1;
  for (let t = 0; t < terms.count; t++) rowStarts[t + 1]! += rowStarts[t]!;
  // Only queries have words: a negative never stops a product code or the unreported rest.
  const texts = Array.from({ length: terms.count }, (_, t) =>
    kindAt(terms, t) === 'query' ? keyAt(terms, t) : '',
  );
  return {
    table: buildTermTable(texts),
    rowStarts,
    adGroupOf: rows.adGroupId.map((id) => groupIndex.get(id)!),
    adGroups: mirror.adGroups,
    codes: new Map(
      Array.from({ length: terms.count }, (_, t) => t)
        .filter((t) => kindAt(terms, t) === 'code')
        .map((t) => [codeKey(keyAt(terms, t)), t]),
    ),
  };
}

/**
 * Effectively live keywords (rules 5.1). A keyword that only a report has named counts as live, since it was served.
 */
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
