import {
  buildTermTable,
  effectOfDraft,
  matchingTexts,
  noFigures,
  addFigures,
  protectedHits,
  textSeverity,
  type DraftEffect,
  type Figures,
  type NegativeText,
  type Place,
  type RowGate,
  type TermTable,
} from '@/core';
import type { StoredChange } from '../repositories/change-sets';
import type { ProtectedTerm } from '../repositories/protected-terms';
import type { LiveKeyword, Snapshot } from './snapshot';

/**
 * A snapshot with what has been decided laid over it: what is on its way to the platform, then the draft.
 */
export type Workbench = {
  snapshot: Snapshot;
  /** the mirror as what is on its way will leave it */
  standing: RowGate;
  draft: DraftEffect;
  protectedOwn: readonly ProtectedTerm[];
  protectedOwnTable: TermTable;
};

export function layWorkbench(
  snapshot: Snapshot,
  onItsWay: readonly StoredChange[],
  drafted: readonly StoredChange[],
  protectedOwn: readonly ProtectedTerm[],
): Workbench {
  const standing = effectOfDraft(
    snapshot.gate,
    onItsWay.map((c) => c.change),
  ).gate;
  return {
    snapshot,
    standing,
    draft: effectOfDraft(
      standing,
      drafted.map((c) => c.change),
    ),
    protectedOwn,
    protectedOwnTable: buildTermTable(protectedOwn.map((p) => p.text)),
  };
}

/** Sums over rows, each term counted once. */
export type Weight = Figures & { terms: number };

export function weighRows({ rows, termOfRow }: Snapshot, indexes: readonly number[]): Weight {
  const weight = { terms: 0, ...noFigures() };
  const terms = new Set<number>();
  for (const r of indexes) {
    terms.add(termOfRow[r]!);
    addFigures(weight, rows[r]!);
  }
  weight.terms = terms.size;
  return weight;
}

export type TouchedKeyword = {
  text: string;
  match: LiveKeyword['match'];
  adGroup: string;
  campaign: string;
  severity: 'shut out' | 'narrowed' | 'costly';
};

/** A live keyword whose own text a negative stops. */
export type StoppedKeyword = { keyword: LiveKeyword; severity: 'shut out' | 'narrowed' };

/** Live keywords whose own text a negative stops, wherever they are (rules 4). */
export function keywordsStoppedBy({ snapshot }: Workbench, negative: NegativeText): StoppedKeyword[] {
  return matchingTexts(snapshot.liveKeywordTable, negative).flatMap((index) => {
    const keyword = snapshot.liveKeywords[index]!;
    const severity = textSeverity(keyword, negative);
    return severity === 'none' ? [] : [{ keyword, severity }];
  });
}

/**
 * Live keywords within a place that a negative touches (rules 4), the worst first.
 * @param byText those whose own text it stops
 * @param stopped rows that it would stop: a keyword whose converting terms are among them is costly
 */
export function touchedKeywords(
  { snapshot }: Workbench,
  gate: RowGate,
  byText: readonly StoppedKeyword[],
  place: Place,
  stopped: readonly number[],
): TouchedKeyword[] {
  const order = { 'shut out': 0, narrowed: 1, costly: 2 };
  const worst = new Map<LiveKeyword, TouchedKeyword['severity']>();
  const enter = (keyword: LiveKeyword, severity: TouchedKeyword['severity']) => {
    if (order[severity] < order[worst.get(keyword) ?? 'costly'] || !worst.has(keyword))
      worst.set(keyword, severity);
  };
  for (const { keyword, severity } of byText)
    if (gate.isWithin(place, keyword.adGroup)) enter(keyword, severity);
  for (const r of stopped) {
    const { conversions, keywordId } = snapshot.rows[r]!;
    const keyword = snapshot.liveKeyword.get(String(keywordId));
    if (keyword && (conversions ?? 0) > 0) enter(keyword, 'costly');
  }
  return [...worst]
    .sort(([, a], [, b]) => order[a] - order[b])
    .map(([keyword, severity]) => ({
      text: keyword.text,
      match: keyword.match,
      adGroup: keyword.adGroup.name,
      campaign: snapshot.campaign.get(keyword.adGroup.campaignId)?.name ?? '',
      severity,
    }));
}

/** Protected terms that negatives would stop: the people's own first, then those that converted. */
export function protectedBy(
  { protectedOwn, protectedOwnTable, snapshot }: Workbench,
  negatives: readonly NegativeText[],
): string[] {
  const own = protectedHits(negatives, protectedOwnTable).map((i) => protectedOwn[i]!.text);
  const earned = protectedHits(negatives, snapshot.convertingTable).map((i) => snapshot.converting[i]!);
  return [...new Set([...own, ...earned])];
}
