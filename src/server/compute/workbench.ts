import {
  buildTermTable,
  effectOfDraft,
  extendDraft,
  matchingTexts,
  matchTexts,
  noFigures,
  protectedHits,
  textSeverity,
  type DraftEffect,
  type NegativeText,
  type Place,
  type RowGate,
  type TermTable,
} from '@/core';
import type { BesideFigures, Few, Touched, Weight } from '@/contracts/common';
import type { StoredChange } from '../repositories/tray/changes';
import type { ProtectedTerm } from '../repositories/decisions/protected-terms';
import type { SetAside } from '../repositories/decisions/set-aside';
import type { LocationWord } from '../repositories/decisions/location-words';
import type { SaidOfLocations } from './locations/name-locations';
import type { WordTag } from '../repositories/decisions/word-tags';
import type { LiveKeyword, Snapshot } from './snapshot';
import { addRow, conversionsAt } from './window-columns';

/**
 * A snapshot with the decisions laid over it: first what the platform accepted, then what was handed over and waits,
 * then the draft.
 */
export type Workbench = {
  snapshot: Snapshot;
  /** the mirror with what was accepted or is said to be done: what counts as in force */
  standing: RowGate;
  /** the account once what was sent or handed over is done: the draft is laid over it */
  awaited: RowGate;
  /** the draft, over what was sent or handed over and nobody says yet that it was done */
  draft: DraftEffect;
  protectedOwn: readonly ProtectedTerm[];
  protectedOwnTable: TermTable;
  /** terms of the window that a person kept, or set aside and that have not come back yet */
  verdictOf: ReadonlyMap<number, 'kept' | 'aside'>;
  aside: readonly SetAside[];
  /** n-grams that people marked: as not worth showing, as a location */
  neutralWords: readonly string[];
  locationWords: readonly string[];
  saidOfLocations: SaidOfLocations;
};

/** What people have said about terms and words. */
export type Verdicts = {
  protectedOwn: readonly ProtectedTerm[];
  /** those that have not come back yet */
  aside: readonly SetAside[];
  tags: readonly WordTag[];
  locations: readonly LocationWord[];
};

/** A workbench whose draft has more changes at its end; all else is as it was. */
export function extendWorkbench<W extends Workbench>(bench: W, more: readonly StoredChange[]): W {
  const changes = more.map((c) => c.change);
  return { ...bench, draft: extendDraft(bench.awaited, bench.draft, changes) };
}

export function layWorkbench(
  snapshot: Snapshot,
  changes: Record<'accepted' | 'waiting' | 'drafted', readonly StoredChange[]>,
  { protectedOwn, aside, tags, locations }: Verdicts,
): Workbench {
  const over = (gate: RowGate, stored: readonly StoredChange[]) =>
    effectOfDraft(
      gate,
      stored.map((c) => c.change),
    );
  const standing = over(snapshot.gate, changes.accepted).gate;
  const awaited = over(standing, changes.waiting).gate;
  return {
    snapshot,
    ...{ standing, awaited },
    draft: over(awaited, changes.drafted),
    protectedOwn,
    protectedOwnTable: buildTermTable(protectedOwn.map((p) => p.text)),
    verdictOf: verdictsOver(snapshot, protectedOwn, aside),
    aside,
    neutralWords: tags.filter((m) => m.tag === 'neutral').map((m) => m.text),
    locationWords: tags.filter((m) => m.tag === 'location').map((m) => m.text),
    saidOfLocations: {
      served: locations.filter(({ said }) => said === 'served').map(({ text }) => text),
      none: locations.filter(({ said }) => said === 'no location').map(({ text }) => text),
      tagged: tags.filter((m) => m.tag === 'location').map((m) => m.text),
    },
  };
}

function verdictsOver(
  snapshot: Snapshot,
  kept: readonly ProtectedTerm[],
  aside: readonly SetAside[],
): Map<number, 'kept' | 'aside'> {
  const verdicts = new Map<number, 'kept' | 'aside'>();
  for (const { key } of aside) {
    const t = findTerm(snapshot, key);
    if (t !== undefined) verdicts.set(t, 'aside');
  }
  for (const { text } of kept) {
    const t = findTerm(snapshot, text);
    if (t !== undefined) verdicts.set(t, 'kept');
  }
  return verdicts;
}

/** Index of the term that a key names; undefined where the window has none. */
export function findTerm({ served }: Pick<Snapshot, 'served'>, key: string): number | undefined {
  return served.codes?.get(key) ?? matchingTexts(served.table, { text: key, match: 'exact' })[0];
}

/** Sums over rows, each term counted once. Fastest where the rows ascend, since they stand by term. */
export function weighRows({ rows }: Snapshot, indexes: readonly number[]): Weight {
  const weight = { terms: 0, ...noFigures() };
  let last = -1;
  const ascend = indexes.every((r, i) => i === 0 || indexes[i - 1]! < r);
  for (const r of ascend ? indexes : Uint32Array.from(indexes).sort()) {
    if (rows.termOf[r] !== last) weight.terms += 1;
    last = rows.termOf[r]!;
    addRow(weight, rows, r);
  }
  return weight;
}

/** What is held beside other days: what is unknown counts as nothing. */
export function besideFigures({ clicks, costMicros, conversions }: Weight): BesideFigures {
  return { clicks: clicks ?? 0, costMicros: costMicros ?? 0, conversions: conversions ?? 0 };
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
 * @param costly ids of the keywords that served the converting terms which it would stop
 */
export function touchedKeywords(
  { snapshot }: Workbench,
  gate: RowGate,
  byText: readonly StoppedKeyword[],
  place: Place,
  costly: Iterable<number>,
): Touched {
  const severities = new Map<LiveKeyword, Touched[number]['severity']>();
  for (const id of costly) {
    const keyword = snapshot.liveKeyword.get(String(id));
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
/** Ids of the keywords that served the converting rows. */
export function keywordsThatConverted({ rows }: Snapshot, indexes: readonly number[]): Set<number> {
  const ids = new Set<number>();
  for (const r of indexes) if (conversionsAt(rows, r) > 0) ids.add(rows.keywordId[r]!);
  return ids;
}

/** As many names as a person needs to know what a change is about. */
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

/** The number of them, and the names of the first. */
export function fewProtectedBy(bench: Workbench, negative: NegativeText): Few<string> {
  const { protectedOwn, protectedOwnTable, snapshot } = bench;
  const own = protectedHits([negative], protectedOwnTable).map((i) => protectedOwn[i]!.text);
  const earned = matchTexts(snapshot.convertingTable, negative);
  const twice = own.filter((text) => snapshot.hasConverted.has(text)).length;
  const names = Array.from(earned.subarray(0, MOST_NAMED + own.length), (i) => snapshot.converting[i]!);
  return {
    count: own.length + earned.length - twice,
    first: [...new Set([...own, ...names])].slice(0, MOST_NAMED),
  };
}
