import type { Barred, NegativeText, Offer, Place } from '@/core';
import { derivedFrom } from '../../../compute/derived';
import { COLUMN, figureAt } from '../../../compute/figure-columns';
import { adGroupsOf } from '../../../compute/history/ad-group-rates';
import { allDaysOf } from '../../../compute/history/all-days';
import { servingRows } from '../../../compute/serving';
import { groundOf, SURE } from '../../../compute/sift/evidence';
import { judgingOf } from '../../../compute/sift/faults';
import { offersOf } from '../../../compute/sift/offers';
import { surelyMissing, type Missing } from '../../../compute/sift/surely-missing';
import { rowsOfTerm } from '../../../compute/snapshot';
import { figuresOfTerm, termSums } from '../../../compute/term-sums';
import { keyAt, kindAt } from '../../../compute/window-columns';
import { weighRows } from '../../../compute/workbench';
import { knownLists } from '../../lists/known-lists';
import type { Open } from '../../open-workbench';
import { exactKeywords } from '../view-term';
import { listsAlike } from './likely-list';

/** A place for a word, with what it would stop there that nothing stops yet. */
export type WordPlace = { place: Place; name: string; note: string | null; rows: number[]; risks: number };
export type OfferedWord = Offer & {
  places: WordPlace[];
  /** conversions that a click on it brings, as a share of what its ad groups bring, by what is known */
  factor: number;
};
export type OfferedTerm = Pick<Missing, 'misses' | 'beside'> & {
  term: number;
  rows: number[];
  risks: number;
};

/** The steps of a pass over an account as the tray would leave it (rules 7.14). */
export type Pass = {
  words: OfferedWord[];
  barred: readonly Barred[];
  terms: OfferedTerm[];
  /** terms that surely miss because their whole ad group does */
  ofGroups: OfferedTerm[];
  left: OfferedTerm[];
  /** what the first two steps would stop and risk, each row once */
  gain: Record<'words' | 'terms', Gain>;
};
export type Gain = { costMicros: number; risks: number };

const EVERYWHERE: Place = { kind: 'account', id: null };
/**
 * A list is the likely place of a word where it stops at least that share of what the account would; a word that stands
 * in one and is stopped to that share is settled.
 */
const LIST_FROM = 0.5;

/** The pass of a workbench; made when it is first asked for. */
export const passOf: (open: Open) => Pass = derivedFrom((open: Open): Pass => {
  const { offered, barred } = offersOf(open, open.account);
  const costOf = ({ places }: OfferedWord) => weighRows(open.snapshot, places[0]!.rows).costMicros ?? 0;
  const words = offered
    .map((offer) => placeWord(open, offer))
    .filter(({ places }) => places.length > 0)
    .sort((a, b) => costOf(b) - costOf(a));
  const isTaken = new Uint8Array(open.snapshot.rows.count);
  const take = (rows: readonly number[], risksOf: (rows: number[]) => number): Gain => {
    const more = rows.filter((r) => isTaken[r] === 0);
    for (const r of more) isTaken[r] = 1;
    return { costMicros: weighRows(open.snapshot, more).costMicros ?? 0, risks: risksOf(more) };
  };
  const ofWords = words.map(({ places, factor }) =>
    take(places[0]!.rows, (rows) => factor * expectedOf(open, rows)),
  );
  const undecided = undecidedTerms(open, isTaken);
  const missing = surelyMissing(open.snapshot, open.account).flatMap((one) => undecided.get(one.term) ?? []);
  const isNegative = ({ beside }: OfferedTerm) => (beside?.worse ?? 0) >= SURE;
  const isOfGroup = ({ beside }: OfferedTerm) => (beside?.adGroup?.misses ?? 0) >= SURE;
  const terms = missing.filter(isNegative);
  const ofGroups = missing.filter((one) => !isNegative(one) && isOfGroup(one));
  for (const { term } of [...terms, ...ofGroups]) undecided.delete(term);
  const ofTerms = terms.map(({ rows, risks }) => take(rows, () => risks));
  return {
    ...{ words, barred, terms, ofGroups, left: leftByCost(open, undecided) },
    gain: { words: addUp(ofWords), terms: addUp(ofTerms) },
  };
});

const addUp = (gains: readonly Gain[]): Gain => ({
  costMicros: gains.reduce((sum, gain) => sum + gain.costMicros, 0),
  risks: gains.reduce((sum, gain) => sum + gain.risks, 0),
});

/** Where the negatives of a word could stand, the likely place first; none where they would stop nothing more. */
function placeWord(open: Open, offer: Offer): OfferedWord {
  const { word, negatives } = offer;
  const { gate } = open.draft;
  const rows = openRows(open, negatives);
  const { spread } = judgingOf(open.snapshot, open.account)!;
  const factor = (spread + word.conversions) / (spread + word.expected);
  if (rows.length === 0 || isSettled(open, negatives, rows)) return { ...offer, factor, places: [] };
  const at = (place: Place, name: string, note: string | null): WordPlace => {
    const inside = gate.within(rows, place);
    return { ...{ place, name, note, rows: inside }, risks: factor * expectedOf(open, inside) };
  };
  const costOf = (place: WordPlace) => weighRows(open.snapshot, place.rows).costMicros ?? 0;
  const everywhere = at(EVERYWHERE, 'the whole account', null);
  const lists = listsAlike(open, word.ngram)
    .map(({ place, name, note }) => at(place, name, note))
    .filter((place) => place.rows.length > 0)
    .sort((a, b) => costOf(b) - costOf(a));
  const isLikely = lists[0] && costOf(lists[0]) >= LIST_FROM * costOf(everywhere);
  return { ...offer, factor, places: isLikely ? [...lists, everywhere] : [everywhere, ...lists] };
}

/**
 * Whether somebody has decided about a word: its negative stands in a list or on the account, and stops most of it there.
 * What is left runs where it was left open.
 */
function isSettled(open: Open, negatives: readonly NegativeText[], rows: readonly number[]): boolean {
  const { gate } = open.draft;
  const shared: Place[] = [EVERYWHERE, ...knownLists(open).map(({ id }): Place => ({ kind: 'list', id }))];
  const stands = negatives.some((negative) => shared.some((place) => gate.holds(negative, place)));
  if (!stands) return false;
  const all = new Set(negatives.flatMap((negative) => gate.matched(negative)));
  const costOf = (some: Iterable<number>) => weighRows(open.snapshot, [...some]).costMicros ?? 0;
  return costOf(rows) < LIST_FROM * costOf(all);
}

/** Rows of serving ad groups that nothing stops yet and one of the negatives would, ascending. */
function openRows({ snapshot, draft }: Open, negatives: readonly NegativeText[]): number[] {
  const rows = new Set<number>();
  for (const negative of negatives) for (const r of draft.gate.openTo(negative)) rows.add(r);
  return [...servingRows(snapshot, [...rows])].sort((a, b) => a - b);
}

/** Conversions that the ad groups of some rows would bring with their clicks in the window. */
function expectedOf({ snapshot }: Open, rows: readonly number[]): number {
  const { shrunk, indexOf } = adGroupsOf(snapshot.history);
  let expected = 0;
  for (const r of rows) {
    const rate = shrunk?.rates[indexOf.get(snapshot.rows.adGroupId[r]!) ?? -1] ?? 0;
    expected += rate * (figureAt(snapshot.rows.figures, r, COLUMN.clicks) || 0);
  }
  return expected;
}

/** Terms that a person could stop as they are: nobody decided about them, and no word of the pass stops them. */
function undecidedTerms(open: Open, isTaken: Uint8Array): Map<number, OfferedTerm> {
  const { snapshot, draft, verdictOf } = open;
  const { terms } = snapshot;
  const known = new Map(surelyMissing(snapshot, open.account).map((one) => [one.term, one]));
  const found = new Map<number, OfferedTerm>();
  const { figures } = termSums(snapshot);
  for (let t = 0; t < terms.count; t++) {
    const isAsked = known.has(t) || figureAt(figures, t, COLUMN.conversions) === 0;
    if (!isAsked || kindAt(terms, t) !== 'query' || verdictOf.has(t)) continue;
    const isOpen = (r: number) => draft.gate.stopCount(r) === 0 && isTaken[r] === 0;
    const rows = servingRows(snapshot, rowsOfTerm(snapshot, t).filter(isOpen));
    if (rows.length === 0) continue;
    const key = keyAt(terms, t);
    if (snapshot.hasConverted.has(key) || exactKeywords(open).has(key)) continue;
    const { misses = NaN, beside = null } = known.get(t) ?? {};
    found.set(t, { term: t, misses, beside, rows: [...rows], risks: riskOf(open, t, rows) });
  }
  return found;
}

/** Conversions that the clicks of some rows of a term would bring, by what is known of it (rules 7.3). */
function riskOf({ snapshot }: Open, t: number, rows: readonly number[]): number {
  const { prior } = groundOf(snapshot);
  if (!prior) return 0;
  const allDays = allDaysOf(snapshot);
  const [n, c] = [allDays.clicks[t]! || 0, allDays.conversions[t]! || 0];
  const rate = (prior.alpha + Math.min(c, n)) / (prior.alpha + prior.beta + n);
  return rows.reduce((sum, r) => sum + rate * (figureAt(snapshot.rows.figures, r, COLUMN.clicks) || 0), 0);
}

function leftByCost({ snapshot }: Open, undecided: ReadonlyMap<number, OfferedTerm>): OfferedTerm[] {
  const sums = termSums(snapshot);
  const cost = (t: number) => figuresOfTerm(sums, t).costMicros ?? 0;
  return [...undecided.values()]
    .filter(({ term }) => cost(term) > 0)
    .sort((a, b) => cost(b.term) - cost(a.term));
}
