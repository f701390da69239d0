import {
  checkNegative,
  matchingTexts,
  placeKey,
  productCodeTest,
  roomAfter,
  smallestSet,
  STANDIN_LIMITS,
  type Change,
  type NegativeText,
  type Place,
} from '@/core';
import type { BatchAnswer, BatchPlace, BatchWay, LeftOut, Selection } from '@/contracts/decisions';
import { costAt, keyAt, kindAt, termAt } from '../compute/window-columns';
import {
  few,
  keywordsStoppedBy,
  keywordsThatConverted,
  touchedKeywords,
  weighRows,
} from '../compute/workbench';
import type { Deps } from './deps';
import type { Open } from './open-workbench';
import { findOnce, knowPass } from './sift-terms';
import { exactKeywords } from './view-term';
import { listIdsOf } from './weigh-choice';

/** More changes than that in one go nobody can look through before sending. */
const MOST_CHANGES = 5_000;

export type BatchQuestion = { selection: Selection; way: BatchWay; place: BatchPlace; days?: number };

/** The changes that a batch would make, and what they would do together; nothing is written. */
export async function planBatch(deps: Deps, open: Open, { selection, way, place }: BatchQuestion) {
  const marked = await markedTerms(deps, open, selection);
  const { fit, leftOut } = sortOut(open, marked);
  const openRows = (t: number) => rowsOf(open, t).filter((r) => open.draft.gate.stopCount(r) === 0);
  const { negatives, bound } =
    way.by === 'each' ? eachExact(open, fit) : fewNegatives(open, fit, way, openRows);
  const changes = placeAll(open, negatives, place, fit);
  const answer = weighChanges(open, changes, fit, openRows);
  const withPlaces = negatives.map((negative) => ({
    ...negative,
    places: changes.filter((c) => c.text === negative.text && c.match === negative.match).length,
  }));
  return {
    changes,
    answer: {
      marked: weighRows(open.snapshot, marked.flatMap(openRows)),
      leftOut,
      changes: changes.length,
      negatives: { count: negatives.length, first: withPlaces.slice(0, 40) },
      ...answer,
      bound,
      refusal: refuse(open, changes, place),
    } satisfies BatchAnswer,
  };
}

/** Indexes of the marked terms, ascending; those that are not in the window any more are left out. */
export async function markedTerms(deps: Deps, open: Open, selection: Selection): Promise<number[]> {
  const { termIndex, terms } = open.snapshot;
  if (selection.kind === 'terms')
    return selection.ids.flatMap((id) => termIndex.get(id) ?? []).sort((a, b) => a - b);
  const { lines } = findOnce(open, selection.filters, await knowPass(deps, open.account.id));
  const except = new Set(selection.except);
  return [...lines.whole, ...lines.parts.map((part) => part.term)]
    .filter((t) => !except.has(terms.ids[t]!))
    .sort((a, b) => a - b);
}

/** Terms of which a negative can be made, and why the others are none. */
function sortOut(open: Open, marked: readonly number[]): { fit: number[]; leftOut: LeftOut[] } {
  const { snapshot, verdictOf, account } = open;
  const isCode = productCodeTest(account.productCodePattern);
  const byReason = new Map<LeftOut['why'], string[]>();
  const fit = marked.filter((t) => {
    const { key, raw, kind } = termAt(snapshot.terms, t);
    const why = ((): LeftOut['why'] | undefined => {
      if (kind === 'code') return 'product code';
      if (kind !== 'query') return 'no word';
      if (exactKeywords(open).has(key)) return 'exact keyword';
      if (snapshot.hasConverted.has(key) || verdictOf.get(t) === 'kept') return 'protected';
      return checkNegative({ text: key, match: 'exact' }, STANDIN_LIMITS, isCode) ? 'refused' : undefined;
    })();
    if (why) byReason.set(why, [...(byReason.get(why) ?? []), raw]);
    return why === undefined;
  });
  return { fit, leftOut: [...byReason].map(([why, terms]) => ({ why, terms: few(terms) })) };
}

function eachExact({ snapshot }: Open, fit: readonly number[]) {
  const negatives = fit.map((t): NegativeText => ({ text: keyAt(snapshot.terms, t), match: 'exact' }));
  return { negatives, bound: null };
}

/** The smallest set (rules 9): it stops no protected term and no live keyword, and other terms only where it may. */
function fewNegatives(
  open: Open,
  fit: readonly number[],
  { limit, mayStopOthers }: Extract<BatchWay, { by: 'few' }>,
  openRows: (t: number) => number[],
) {
  const { snapshot, protectedOwn } = open;
  const { terms, rows } = snapshot;
  const isMarked = new Set(fit);
  const stayOpen = [
    ...protectedOwn.map((p) => p.text),
    ...snapshot.converting,
    ...snapshot.liveKeywords.map((k) => k.text),
  ];
  if (!mayStopOthers) {
    for (let t = 0; t < terms.count; t++) {
      if (kindAt(terms, t) === 'query' && !isMarked.has(t) && openRows(t).length > 0)
        stayOpen.push(keyAt(terms, t));
    }
  }
  const unwanted = fit.map((t) => ({
    text: keyAt(terms, t),
    costMicros: openRows(t).reduce((sum, r) => sum + costAt(rows, r), 0),
  }));
  const { negatives, stoppedCostMicros, boundMicros } = smallestSet({ unwanted, open: stayOpen, limit });
  return { negatives, bound: { stoppedMicros: stoppedCostMicros, mostMicros: boundMicros } };
}

type AddNegative = Extract<Change, { kind: 'add negative' }>;

/** Negatives in their places; at “own” places each goes wherever a marked term that it stops cost most. */
function placeAll(
  open: Open,
  negatives: readonly NegativeText[],
  place: BatchPlace,
  fit: readonly number[],
): AddNegative[] {
  const isFit = new Set(fit);
  const { gate } = open.draft;
  return negatives
    .flatMap((negative) => placesOf(open, negative, place, isFit).map((at) => ({ negative, at })))
    .filter(({ negative, at }) => !gate.holds(negative, at))
    .map(({ negative: { text, match }, at }) => ({ kind: 'add negative', text, match, place: at }));
}

function placesOf(
  { snapshot }: Open,
  negative: NegativeText,
  place: BatchPlace,
  isFit: ReadonlySet<number>,
): Place[] {
  if (place.kind === 'account') return [{ kind: 'account', id: null }];
  if (place.kind === 'list') return [{ kind: 'list', id: place.id }];
  const places = new Map<string, Place>();
  for (const t of matchingTexts(snapshot.served.table, negative)) {
    if (!isFit.has(t)) continue;
    const { served, rows } = snapshot;
    let costliest = served.rowStarts[t]!;
    for (let r = costliest; r < served.rowStarts[t + 1]!; r++)
      if (costAt(rows, r) > costAt(rows, costliest)) costliest = r;
    const adGroup = served.adGroups[served.adGroupOf[costliest]!]!;
    const at: Place =
      place.kind === 'own ad group'
        ? { kind: 'adGroup', id: adGroup.id }
        : { kind: 'campaign', id: adGroup.campaignId };
    places.set(placeKey(at), at);
  }
  return [...places.values()];
}

/** What the changes stop together, on a fork of the draft. */
function weighChanges(
  open: Open,
  changes: readonly AddNegative[],
  fit: readonly number[],
  openRows: (t: number) => number[],
): Pick<BatchAnswer, 'stops' | 'others' | 'touched'> {
  const { snapshot } = open;
  const gate = open.draft.gate.fork();
  const stopped = changes.flatMap((change) => gate.apply(change).stopped);
  const isFit = new Set(fit.flatMap(openRows));
  const others = stopped.filter((r) => !isFit.has(r)).sort((a, b) => a - b);
  const first = [...new Set(others.map((r) => snapshot.rows.termOf[r]!))].slice(0, 5);
  const byText = changes.flatMap((change) => keywordsStoppedBy(open, change));
  const within = byText.filter(({ keyword }) =>
    changes.some((change) => gate.isWithin(change.place, keyword.adGroup)),
  );
  return {
    stops: weighRows(
      snapshot,
      stopped.filter((r) => isFit.has(r)),
    ),
    others: { ...weighRows(snapshot, others), first: first.map((t) => termAt(snapshot.terms, t).raw) },
    touched: touchedKeywords(
      open,
      gate,
      within,
      { kind: 'account', id: null },
      keywordsThatConverted(snapshot, stopped),
    ),
  };
}

function refuse(open: Open, changes: readonly AddNegative[], place: BatchPlace): string | null {
  if (changes.length === 0)
    return 'Nothing of what is marked can be stopped so: it is stopped already, or left out.';
  if (changes.length > MOST_CHANGES) {
    return `These would be ${changes.length.toLocaleString('en')} changes, and ${MOST_CHANGES.toLocaleString('en')} fit in one go. Mark fewer terms, or stop them by the smallest set.`;
  }
  if (place.kind === 'list' && !listIdsOf(open).includes(place.id)) return 'This list is not there any more.';
  const gate = open.draft.gate.fork();
  for (const change of changes) gate.apply(change);
  const over = roomAfter(gate, changes, STANDIN_LIMITS).find(({ used, most }) => used > most);
  return over
    ? `It would hold ${over.used.toLocaleString('en')} negatives there, and may hold ${over.most.toLocaleString('en')}. Mark fewer terms, choose another place, or stop them by the smallest set.`
    : null;
}

function rowsOf({ snapshot: { served } }: Open, t: number): number[] {
  const first = served.rowStarts[t]!;
  return Array.from({ length: served.rowStarts[t + 1]! - first }, (_, i) => first + i);
}
