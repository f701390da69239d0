import type { Days } from '@/contracts/days';
import { rollup } from 'd3-array';
import {
  checkNegative,
  lastingSet,
  matchingTexts,
  placeKey,
  productCodeTest,
  roomAfter,
  smallestSet,
  stops,
  type Change,
  type NegativeText,
  type Place,
  type RowGate,
} from '@/core';
import type { BatchAnswer, BatchPlace, BatchWay, LeftOut, Selection } from '@/contracts/decisions';
import { evidenceOfNegatives } from '../../compute/evidence/faults';
import { pickRows } from '../../compute/sift/lines';
import { costliestOf, indexOfTerm, rowsOfTerm } from '../../compute/snapshot';
import { costAt, keyAt, kindAt, termAt } from '../../compute/window-columns';
import { servingRows } from '../../compute/serving';
import {
  few,
  keywordsStoppedBy,
  keywordsThatConverted,
  touchedKeywords,
  weighRows,
} from '../../compute/workbench';
import type { Deps } from '../deps';
import type { Open } from '../open-workbench';
import { findOnce, knowPass } from './sift-terms';
import { exactKeywords } from './view-term';
import { findList } from '../lists/known-lists';

/** The most changes of one batch: nobody can look through more before sending. */
const MOST_CHANGES = 5_000;
/** The most negatives that the answer names. */
const MOST_NAMED = 40;

export type BatchQuestion = { selection: Selection; way: BatchWay; place: BatchPlace; days?: Days };

/** The changes that a batch would make, and what they would do together; nothing is written. */
export async function planBatch(
  deps: Deps,
  open: Open,
  { selection, way, place }: BatchQuestion,
): Promise<{ changes: AddNegative[]; answer: BatchAnswer }> {
  const { snapshot, draft } = open;
  const marked = await markedTerms(deps, open, selection);
  const { fit, leftOut } = sortOut(open, marked);
  const mayRow = pickRows(snapshot, selection.filters);
  const rowsOf: RowsOf = (t) => rowsOfTerm(snapshot, t).filter((r) => mayRow === null || mayRow[r] === 1);
  const openRows: RowsOf = (t) => rowsOf(t).filter((r) => draft.gate.stopCount(r) === 0);
  const answer = {
    marked: weighRows(snapshot, marked.flatMap(openRows)),
    leftOut,
    ...{ changes: 0, negatives: { count: 0, first: [] }, bound: null, heldBack: null, touched: [] },
    ...{ stops: weighRows(snapshot, []), others: { ...weighRows(snapshot, []), first: [] } },
  };
  if (way.by === 'each' && fit.length > MOST_CHANGES)
    return { changes: [], answer: { ...answer, refusal: sayTooMany(fit.length) } };

  const { negatives, bound, heldBack } = chooseNegatives(open, fit, way, openRows);
  const changes = placeAll(open, negatives, place, fit, rowsOf);
  const { gate, ...weighed } = weighChanges(open, changes, fit);
  const placesOfEach = rollup(
    changes,
    (same) => same.length,
    ({ match, text }) => `${match} ${text}`,
  );
  const first = negatives
    .slice(0, MOST_NAMED)
    .map((n) => ({ ...n, places: placesOfEach.get(`${n.match} ${n.text}`) ?? 0 }));
  return {
    changes,
    answer: {
      ...answer,
      ...weighed,
      ...{ changes: changes.length, negatives: { count: negatives.length, first }, bound, heldBack },
      refusal: refuse(open, gate, changes, place),
    },
  };
}

type RowsOf = (term: number) => number[];

/** Indexes of the marked terms, ascending; those that are not in the window any more are left out. */
export async function markedTerms(deps: Deps, open: Open, selection: Selection): Promise<number[]> {
  const { terms } = open.snapshot;
  if (selection.kind === 'terms')
    return selection.ids.flatMap((id) => indexOfTerm(open.snapshot, id) ?? []).sort((a, b) => a - b);
  const { lines } = findOnce(open, selection.filters, await knowPass(deps, open.account.id));
  const except = new Set(selection.except);
  return [...lines.whole, ...lines.parts.map((part) => part.term)]
    .filter((t) => !except.has(terms.ids[t]!))
    .sort((a, b) => a - b);
}

/** The terms of which a negative can be made, and the reason for each other term. */
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
      return checkNegative({ text: key, match: 'exact' }, account.limits, isCode) ? 'refused' : undefined;
    })();
    if (why === undefined) return true;
    const others = byReason.get(why);
    if (others) others.push(raw);
    else byReason.set(why, [raw]);
    return false;
  });
  return { fit, leftOut: [...byReason].map(([why, terms]) => ({ why, terms: few(terms) })) };
}

type Chosen = { negatives: readonly NegativeText[] } & Pick<BatchAnswer, 'bound' | 'heldBack'>;

function chooseNegatives(open: Open, fit: readonly number[], way: BatchWay, openRows: RowsOf): Chosen {
  switch (way.by) {
    case 'each': {
      const negatives = fit.map((t) => ({ text: keyAt(open.snapshot.terms, t), match: 'exact' as const }));
      return { negatives, bound: null, heldBack: null };
    }
    case 'few':
      return theseExactly(open, fit, way, openRows);
    case 'like':
      return theseAndTheirLike(open, fit, way, openRows);
  }
}

/** The smallest set (rules 9.1): it stops no protected term and no live keyword, and other terms only where it may. */
function theseExactly(
  open: Open,
  fit: readonly number[],
  { limit, mayStopOthers }: Extract<BatchWay, { by: 'few' }>,
  openRows: RowsOf,
): Chosen {
  const { terms } = open.snapshot;
  const isMarked = new Set(fit);
  const stayOpen = [...liveTexts(open), ...goodTexts(open)];
  if (!mayStopOthers) {
    for (let t = 0; t < terms.count; t++) {
      if (kindAt(terms, t) === 'query' && !isMarked.has(t) && openRows(t).length > 0)
        stayOpen.push(keyAt(terms, t));
    }
  }
  const unwanted = unwantedOf(open, fit, openRows);
  const { negatives, stoppedCostMicros, boundMicros } = smallestSet({ unwanted, open: stayOpen, limit });
  return {
    ...{ negatives, heldBack: null },
    bound: { stoppedMicros: stoppedCostMicros, mostMicros: boundMicros },
  };
}

/** The set that also stops what is like the marked terms (rules 9.2): no protected term, no live keyword, no brand word. */
function theseAndTheirLike(
  open: Open,
  fit: readonly number[],
  { limit }: Extract<BatchWay, { by: 'like' }>,
  openRows: RowsOf,
): Chosen {
  const { brandWords } = open.account;
  const evidenceOf = evidenceOfNegatives(open.snapshot, open.account);
  const holdsBrand = ({ text, match }: NegativeText) =>
    match === 'phrase' && brandWords.some((brand) => stops({ text: brand, match: 'phrase' }, text));
  const { negatives, heldBack } = lastingSet({
    unwanted: unwantedOf(open, fit, openRows),
    open: liveTexts(open),
    good: goodTexts(open),
    evidenceOf: (negative, leftOut) => (holdsBrand(negative) ? 0 : evidenceOf(negative, leftOut)),
    limit,
  });
  return { negatives, bound: null, heldBack };
}

function unwantedOf({ snapshot: { terms, rows } }: Open, fit: readonly number[], openRows: RowsOf) {
  return fit.map((t) => ({
    text: keyAt(terms, t),
    costMicros: openRows(t).reduce((sum, r) => sum + costAt(rows, r), 0),
  }));
}

const liveTexts = ({ snapshot }: Open) => snapshot.liveKeywords.map(({ text }) => text);
const goodTexts = ({ snapshot, protectedOwn }: Open) => [
  ...protectedOwn.map(({ text }) => text),
  ...snapshot.converting,
];

type AddNegative = Extract<Change, { kind: 'add negative' }>;

/** Negatives in their places; at “own” places each goes wherever a marked term that it stops cost most. */
function placeAll(
  open: Open,
  negatives: readonly NegativeText[],
  place: BatchPlace,
  fit: readonly number[],
  rowsOf: RowsOf,
): AddNegative[] {
  const isFit = new Set(fit);
  const { gate } = open.draft;
  return negatives
    .flatMap((negative) => placesOf(open, negative, place, isFit, rowsOf).map((at) => ({ negative, at })))
    .filter(({ negative, at }) => !gate.holds(negative, at))
    .map(({ negative: { text, match }, at }) => ({ kind: 'add negative', text, match, place: at }));
}

function placesOf(
  { snapshot }: Open,
  negative: NegativeText,
  place: BatchPlace,
  isFit: ReadonlySet<number>,
  rowsOf: RowsOf,
): Place[] {
  if (place.kind === 'account') return [{ kind: 'account', id: null }];
  if (place.kind === 'list') return [{ kind: 'list', id: place.id }];
  const places = new Map<string, Place>();
  for (const t of matchingTexts(snapshot.served.table, negative)) {
    if (!isFit.has(t)) continue;
    const { served } = snapshot;
    const rows = rowsOf(t);
    if (rows.length === 0) continue;
    const adGroup = served.adGroups[served.adGroupOf[costliestOf(snapshot, rows)]!]!;
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
): Pick<BatchAnswer, 'stops' | 'others' | 'touched'> & { gate: RowGate } {
  const { snapshot } = open;
  const gate = open.draft.gate.fork();
  const stopped = changes.flatMap((change) => gate.apply(change).stopped);
  const isFit = new Set(fit);
  const isMarked = (r: number) => isFit.has(snapshot.rows.termOf[r]!);
  const others = servingRows(
    snapshot,
    stopped.filter((r) => !isMarked(r)),
  ).toSorted((a, b) => a - b);
  const first = [...new Set(others.map((r) => snapshot.rows.termOf[r]!))].slice(0, 5);
  const byText = changes.flatMap((change) =>
    keywordsStoppedBy(open, change).filter(({ keyword }) => gate.isWithin(change.place, keyword.adGroup)),
  );
  return {
    gate,
    stops: weighRows(snapshot, servingRows(snapshot, stopped.filter(isMarked))),
    others: { ...weighRows(snapshot, others), first: first.map((t) => termAt(snapshot.terms, t).raw) },
    touched: touchedKeywords(
      open,
      gate,
      byText,
      { kind: 'account', id: null },
      keywordsThatConverted(snapshot, stopped),
    ),
  };
}

function sayTooMany(changes: number): string {
  return `These would be ${changes.toLocaleString('en')} changes, and ${MOST_CHANGES.toLocaleString('en')} fit in one go. Mark fewer terms, or stop them by the smallest set.`;
}

/** @param gate the account as the changes would leave it */
function refuse(
  open: Open,
  gate: RowGate,
  changes: readonly AddNegative[],
  place: BatchPlace,
): string | null {
  if (changes.length === 0)
    return 'Nothing of what is marked can be stopped so: it is stopped already, or left out.';
  if (changes.length > MOST_CHANGES) return sayTooMany(changes.length);
  if (place.kind === 'list' && findList(open, place.id)?.holds !== 'words')
    return 'This list is not there any more.';
  const over = roomAfter(gate, changes, open.account.limits).find(({ used, most }) => used > most);
  return over
    ? `It would hold ${over.used.toLocaleString('en')} negatives there, and may hold ${over.most.toLocaleString('en')}. Mark fewer terms, choose another place, or stop them by the smallest set.`
    : null;
}
