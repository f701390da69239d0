import type { NegativeText, Offer, Place } from '@/core';
import { COLUMN, figureAt } from '../../../compute/figure-columns';
import { adGroupsOf } from '../../../compute/history/ad-group-rates';
import { servingRows } from '../../../compute/serving';
import { judgingOf } from '../../../compute/evidence/faults';
import { weighRows } from '../../../compute/workbench';
import { knownLists } from '../../lists/known-lists';
import type { Open } from '../../open-workbench';
import { listsAlike } from '../likely-list';

/** A place for a word, with what it would stop there that nothing stops yet. */
export type WordPlace = { place: Place; name: string; note: string | null; rows: number[]; risks: number };
export type OfferedWord = Offer & {
  places: WordPlace[];
  /** conversions that a click on it brings, as a share of what its ad groups bring, by what is known */
  factor: number;
};

const EVERYWHERE: Place = { kind: 'account', id: null };
/**
 * A list is the likely place of a word where it stops at least that share of what the account would; a word that stands
 * in one and is stopped to that share is settled.
 */
const LIST_FROM = 0.5;

/** Where the negatives of a word could stand, the likely place first; none where they would stop nothing more. */
export function placeWord(open: Open, offer: Offer): OfferedWord {
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
  const alike = negatives.flatMap(twins);
  const stands = alike.some((negative) => shared.some((place) => gate.holds(negative, place)));
  if (!stands) return false;
  const all = new Set(negatives.flatMap((negative) => gate.matched(negative)));
  const costOf = (some: Iterable<number>) => weighRows(open.snapshot, [...some]).costMicros ?? 0;
  return costOf(rows) < LIST_FROM * costOf(all);
}

/** A single word as phrase and as broad stops the same (rules 2.2). */
const twins = (negative: NegativeText): NegativeText[] =>
  negative.match === 'phrase' && !negative.text.includes(' ')
    ? [negative, { ...negative, match: 'broad' }]
    : [negative];

/** Rows of serving ad groups that nothing stops yet and one of the negatives would, ascending. */
function openRows({ snapshot, draft }: Open, negatives: readonly NegativeText[]): number[] {
  const rows = new Set<number>();
  for (const negative of negatives) for (const r of draft.gate.openTo(negative)) rows.add(r);
  return [...servingRows(snapshot, [...rows])].sort((a, b) => a - b);
}

/** Conversions that the ad groups of some rows would bring with their clicks in the window. */
export function expectedOf({ snapshot }: Open, rows: readonly number[]): number {
  const { shrunk, indexOf } = adGroupsOf(snapshot.history);
  let expected = 0;
  for (const r of rows) {
    const rate = shrunk?.rates[indexOf.get(snapshot.rows.adGroupId[r]!) ?? -1] ?? 0;
    expected += rate * (figureAt(snapshot.rows.figures, r, COLUMN.clicks) || 0);
  }
  return expected;
}
