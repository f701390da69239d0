import {
  buildTermTable,
  effectOfDraft,
  matchingTexts,
  noFigures,
  protectedHits,
  textSeverity,
  type DraftEffect,
  type NegativeText,
  type Place,
  type RowGate,
  type TermTable,
} from '@/core';
import type { Few, Touched, Weight } from '@/contracts/common';
import type { StoredChange } from '../repositories/change-sets';
import type { ProtectedTerm } from '../repositories/protected-terms';
import type { LiveKeyword, Snapshot } from './snapshot';
import { addRow, conversionsAt } from './window-columns';

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
export function weighRows({ rows }: Snapshot, indexes: readonly number[]): Weight {
  const weight = { terms: 0, ...noFigures() };
  const terms = new Set<number>();
  for (const r of indexes) {
    terms.add(rows.termOf[r]!);
    addRow(weight, rows, r);
  }
  weight.terms = terms.size;
  return weight;
}

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
): Touched {
  const severities = new Map<LiveKeyword, Touched[number]['severity']>();
  for (const r of stopped) {
    if (conversionsAt(snapshot.rows, r) <= 0) continue;
    const keyword = snapshot.liveKeyword.get(String(snapshot.rows.keywordId[r]!));
    if (keyword) severities.set(keyword, 'costly');
  }
  for (const { keyword, severity } of byText) {
    if (severities.get(keyword) !== 'shut out' && gate.isWithin(place, keyword.adGroup))
      severities.set(keyword, severity);
  }
  return WORST_FIRST.flatMap((severity) => {
    const keywords = [...severities.keys()].filter((k) => severities.get(k) === severity);
    if (keywords.length === 0) return [];
    const { count, first } = few(keywords);
    const campaign = (k: LiveKeyword) => snapshot.campaign.get(k.adGroup.campaignId)?.name ?? '';
    const name = (k: LiveKeyword) => ({
      text: k.text,
      match: k.match,
      adGroup: k.adGroup.name,
      campaign: campaign(k),
    });
    return [{ severity, count, first: first.map(name) }];
  });
}

const WORST_FIRST = ['shut out', 'narrowed', 'costly'] as const;
/** Enough to know what it is about. */
const MOST_NAMED = 3;

/** The first few of many. */
export function few<T>(all: readonly T[]): Few<T> {
  return { count: all.length, first: all.slice(0, MOST_NAMED) };
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
