import { bisectLeft } from 'd3-array';
import {
  buildTermTable,
  codeKey,
  compileAccountGate,
  layGate,
  numbersTo,
  type AccountGate,
  type MatchType,
  type RowGate,
  type ServedRows,
  type TermTable,
  type Window,
} from '@/core';
import type { Db } from '../db/connection';
import { loadOwnTargets, type OwnTargets } from '../repositories/account/own-targets';
import {
  loadMirror,
  shapeOf,
  type AdGroup,
  type Campaign,
  type Keyword,
  type Mirror,
} from '../repositories/structure/structure';
import { derivedFrom } from './derived';
import type { WindowColumns } from './facts/sum-window';
import { convertingTexts, type History } from './history/history';
import { textsIn } from './shared-columns';
import { costAt, keyAt, kindAt } from './window-columns';

/** A keyword that is effectively live, with where it stands. */
export type LiveKeyword = Keyword & { match: MatchType; adGroup: AdGroup };

/** What was served in a window: columns that threads share. */
export type WindowData = WindowColumns & {
  window: Window;
  /** null before the first load */
  dataDays: { from: string; to: string } | null;
};

/** A window, and all days behind it: what no change of the structure touches. What is made of it alone outlives one. */
export type WindowFacts = WindowData & {
  /** what the terms brought over all days that are kept */
  history: History;
};

/** The account as it stands: what is small, and is read anew when the structure changes. */
export type Standing = {
  mirror: Mirror;
  /** of campaigns and product groups; few accounts have any */
  ownTargets: OwnTargets;
};

/** An account's window in memory, and what is made from it once. Never changed after it is built. */
export type Snapshot = WindowFacts &
  Standing & {
    /** the same facts, as they are kept */
    facts: WindowFacts;
    /** texts that converted often enough in all the data there is */
    converting: readonly string[];
    campaign: ReadonlyMap<string, Campaign>;
    adGroup: ReadonlyMap<string, AdGroup>;
    keyword: ReadonlyMap<string, Keyword>;
    negative: ReadonlyMap<string, Mirror['negatives'][number]>;
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

export async function loadStanding(db: Db, accountId: number): Promise<Standing> {
  return { mirror: await loadMirror(db, accountId), ownTargets: await loadOwnTargets(db, accountId) };
}

/**
 * Makes from the data what requests need: indexes, gates, the account's negatives laid over the rows.
 * @param facts read before the standing, so that each of their ad groups is there
 * @param keeper so many conversions protect a term; null: none does
 */
export function openSnapshot(facts: WindowFacts, standing: Standing, keeper: number | null): Snapshot {
  const { mirror } = standing;
  const campaign = new Map(mirror.campaigns.map((c) => [c.id, c]));
  const adGroup = new Map(mirror.adGroups.map((g) => [g.id, g]));
  const served = layRows(facts, mirror);
  const shape = shapeOf(mirror);
  const liveKeywords = findLiveKeywords(mirror, campaign, adGroup);
  const converting = convertingTexts(facts.history, keeper);
  return {
    ...facts,
    ...standing,
    ...{ facts, converting, campaign, adGroup, served, liveKeywords },
    keyword: new Map(mirror.keywords.map((k) => [k.id, k])),
    negative: new Map(mirror.negatives.map((n) => [n.id, n])),
    gate: layGate(served, shape),
    accountGate: compileAccountGate(shape),
    liveKeyword: new Map(liveKeywords.map((k) => [k.id, k])),
    hasConverted: new Set(converting),
    liveKeywordTable: buildTermTable(liveKeywords.map((k) => k.text)),
    convertingTable: buildTermTable(converting),
  };
}

/** The index of a term among those of a window, by its id; undefined where it was not served then. */
export function indexOfTerm({ terms: { ids } }: Pick<Snapshot, 'terms'>, id: number): number | undefined {
  const t = bisectLeft(ids, id);
  return ids[t] === id ? t : undefined;
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

function layRows(facts: WindowFacts, { adGroups }: Mirror): ServedRows {
  const groupIndex = new Map(adGroups.map((group, g) => [Number(group.id), g]));
  const adGroupOf = facts.rows.adGroupId.map((id) => groupIndex.get(id)!);
  return { ...servedTerms(facts), adGroupOf, adGroups };
}

/** What no change of the structure touches: the words of the terms, and where their rows stand. */
const servedTerms = derivedFrom(
  ({ rows, terms }: WindowFacts): Pick<ServedRows, 'table' | 'rowStarts' | 'codes'> => {
    const rowStarts = new Uint32Array(terms.count + 1);
    for (const t of rows.termOf) rowStarts[t + 1]! += 1;
    for (let t = 0; t < terms.count; t++) rowStarts[t + 1]! += rowStarts[t]!;
    // Only queries have words: a negative never stops a product code or the unreported rest.
    const texts = textsIn(terms.keys, terms.keyStarts, (t) => kindAt(terms, t) === 'query');
    const codes = [...numbersTo(terms.count).filter((t) => kindAt(terms, t) === 'code')];
    return {
      ...{ table: buildTermTable(texts), rowStarts },
      codes: new Map(codes.map((t) => [codeKey(keyAt(terms, t)), t])),
    };
  },
);

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
