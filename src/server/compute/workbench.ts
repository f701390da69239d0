import {
  buildTermTable,
  effectOfDraft,
  matchingTexts,
  noFigures,
  addFigures,
  protectedHits,
  textSeverity,
  type Change,
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

/**
 * Live keywords within a place that a negative touches (rules 4), the worst first.
 * @param stopped rows that the negative would stop: a keyword whose converting terms are among them is costly
 */
export function touchedKeywords(
  { snapshot }: Workbench,
  gate: RowGate,
  negative: NegativeText,
  place: Place,
  stopped: readonly number[],
): TouchedKeyword[] {
  const found = new Map<string, TouchedKeyword>();
  const enter = (keyword: LiveKeyword, severity: TouchedKeyword['severity']) =>
    found.set(keyword.id, {
      text: keyword.text,
      match: keyword.match,
      adGroup: keyword.adGroup.name,
      campaign: snapshot.campaign.get(keyword.adGroup.campaignId)?.name ?? '',
      severity,
    });
  for (const index of matchingTexts(snapshot.liveKeywordTable, negative)) {
    const keyword = snapshot.liveKeywords[index]!;
    const severity = textSeverity(keyword, negative);
    if (severity !== 'none' && gate.isWithin(place, keyword.adGroup)) enter(keyword, severity);
  }
  const lost = new Set(
    stopped
      .filter((r) => (snapshot.rows[r]!.conversions ?? 0) > 0)
      .map((r) => String(snapshot.rows[r]!.keywordId)),
  );
  if (lost.size > 0) {
    for (const keyword of snapshot.liveKeywords) {
      if (lost.has(keyword.id) && !found.has(keyword.id)) enter(keyword, 'costly');
    }
  }
  const order = { 'shut out': 0, narrowed: 1, costly: 2 };
  return [...found.values()].sort((a, b) => order[a.severity] - order[b.severity]);
}

/** Protected terms that a change would stop: the people's own first, then those that converted. */
export function protectedBy(workbench: Workbench, gate: RowGate, change: Change): string[] {
  const own = protectedHits(change, gate, workbench.protectedOwnTable).map(
    (i) => workbench.protectedOwn[i]!.text,
  );
  const { converting, convertingTable } = workbench.snapshot;
  const earned = protectedHits(change, gate, convertingTable).map((i) => converting[i]!);
  return [...new Set([...own, ...earned])];
}
