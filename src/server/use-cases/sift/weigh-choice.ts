import type { Days } from '@/contracts/days';
import {
  checkNegative,
  describePlace,
  productCodeTest,
  type MatchType,
  type NegativeText,
  type Place,
  textOfChosen,
  standTogether,
} from '@/core';
import type { Few, NegativeInPlace } from '@/contracts/common';
import type { ChoiceAnswer, MatchChoice, PlaceChoice } from '@/contracts/hand';
import {
  bitsOfPlaces,
  findCoverer,
  reachOf,
  weighAtPlaces,
  type PlaceBits,
  type Reach,
} from '../../compute/sift/weigh-places';
import { sayStatus, isNotGiven } from '../../compute/serving';
import {
  fewProtectedBy,
  keywordsStoppedBy,
  touchedKeywords,
  type StoppedKeyword,
} from '../../compute/workbench';
import { indexOfTerm, rowsOfTerm } from '../../compute/snapshot';
import { costAt, termAt } from '../../compute/window-columns';
import { Refusal, type Deps } from '../deps';
import { knownLists } from '../lists/known-lists';
import { whereItHangs } from '../lists/in-words';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { addedMatching } from './added-negatives';
import { proposePlace } from './propose-place';
import { derivedByKey } from '../../compute/derived';

/** In reading order: the usual choice first, the whole term last. */
const IN_ORDER: readonly MatchType[] = ['phrase', 'broad', 'exact'];

type NamedPlace = Pick<PlaceChoice, 'place' | 'name' | 'note' | 'heed'>;

/**
 * What stopping the chosen words of a term (or the whole term) would do, in each match type at each place: what is
 * in hand in Sift.
 * @param positions of the chosen words, from 0; none chosen weighs the whole term
 * @throws Refusal when the term has no row in the window
 */
export async function weighChoice(
  deps: Deps,
  slug: string,
  query: { term: number; days?: Days; campaign?: string; positions: readonly number[] },
): Promise<ChoiceAnswer> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), query.days);
  const t = requireTerm(open, query.term);
  const term = termAt(open.snapshot.terms, t);
  const words = term.kind === 'query' ? term.key.split(' ') : [];
  const row = rowsInOrder(open, t, query.campaign)[0]!;
  const choices = words.length > 0 ? weighAll(open, words, query.positions, row) : [];
  const { served } = open.snapshot;
  const proposed =
    words.length > 0 && query.positions.length > 0
      ? proposePlace(
          open,
          textOfChosen(words, query.positions, 'broad'),
          served.adGroups[served.adGroupOf[row]!]!,
        )
      : null;
  return { id: term.id, choices, smallestSafe: findSmallestSafe(choices), proposed };
}

/** Index of a term in the window. @throws Refusal when it has no row there */
export function requireTerm({ snapshot }: Open, id: number): number {
  const t = indexOfTerm(snapshot, id);
  if (t === undefined) throw new Refusal('This term has no row in the window any more. Choose another.', 404);
  return t;
}

/** Rows of a term: those of the campaign that is looked at first, then those that are open still, then costliest first. */
export function rowsInOrder({ snapshot, draft }: Open, t: number, campaign = ''): number[] {
  const { served, rows } = snapshot;
  const isIn = (r: number) => Number(served.adGroups[served.adGroupOf[r]!]!.campaignId === campaign);
  const isOpen = (r: number) => Number(draft.gate.stopCount(r) === 0);
  return rowsOfTerm(snapshot, t).sort(
    (a, b) => isIn(b) - isIn(a) || isOpen(b) - isOpen(a) || costAt(rows, b) - costAt(rows, a),
  );
}

function weighAll(
  open: Open,
  words: readonly string[],
  positions: readonly number[],
  row: number,
): MatchChoice[] {
  const { served } = open.snapshot;
  const places = placesFor(open, served.adGroups[served.adGroupOf[row]!]!);
  const bits = bitsOfPlaces(
    open.snapshot,
    open.draft.gate,
    places.map(({ place }) => place),
  );
  const weighed = new Map<string, PlaceChoice[]>();
  return IN_ORDER.map((match) => {
    const { text, refusal } = textFor(open, match, words, positions);
    if (refusal) return { match, text, refusal, places: [] };
    // A single word stops the same as a phrase and broad (rules 2.2), unless one of them stands there already.
    const key = text.includes(' ') || match === 'exact' ? `${match} ${text}` : text;
    let at = weighed.get(key);
    if (!at) weighed.set(key, (at = weighPlaces(open, { text, match }, places, bits)));
    const gate = open.draft.gate;
    return {
      ...{ match, text, refusal },
      places: at.map((choice) => {
        const isThere = gate.holds({ text, match }, choice.place);
        return { ...choice, isThere, isSafe: choice.isSafe && !isThere };
      }),
    };
  });
}

/** The text that chosen words make; a phrase needs neighbouring words. */
function textFor(open: Open, match: MatchType, words: readonly string[], positions: readonly number[]) {
  const chosen = [...new Set(positions)].filter((p) => p < words.length).sort((a, b) => a - b);
  const text = textOfChosen(words, chosen, match);
  if (match === 'phrase' && !standTogether(chosen))
    return { text, refusal: 'these words do not stand together' };
  const isCode = productCodeTest(open.account.productCodePattern);
  return { text, refusal: checkNegative({ text, match }, open.account.limits, isCode)?.message ?? null };
}

/**
 * Ad group and campaign where the term cost most, all shared lists (those in the tray too; those that hang on that
 * campaign first), and the account.
 */
function placesFor(open: Open, adGroup: { id: string; campaignId: string }): NamedPlace[] {
  const { names, draft, snapshot } = open;
  const status = (place: Place) => ({ note: null, heed: sayStatus(snapshot, place) });
  const group: Place = { kind: 'adGroup', id: adGroup.id };
  const campaign: Place = { kind: 'campaign', id: adGroup.campaignId };
  const words = knownLists(open).filter(({ holds }) => holds === 'words');
  const lists = words.map(({ id, name }) => ({
    place: { kind: 'list' as const, id },
    name,
    note: whereItHangs(draft.gate.hungOn(id), (c) => names.campaign(c) ?? c),
    heed: null,
  }));
  const hangsHere = ({ place }: NamedPlace) => Number(draft.gate.isWithin(place, adGroup));
  const named = [
    { place: group, name: names.adGroup(adGroup.id) ?? '', ...status(group) },
    { place: campaign, name: names.campaign(adGroup.campaignId) ?? '', ...status(campaign) },
    ...lists.sort((a, b) => hangsHere(b) - hangsHere(a)),
    { place: { kind: 'account' as const, id: null }, name: 'the whole account', note: null, heed: null },
  ];
  return named.filter(({ place }) => !isNotGiven(open.snapshot, place));
}

/** The matches of a negative are found once; each place takes its part of them. */
function weighPlaces(
  open: Open,
  negative: NegativeText,
  places: readonly NamedPlace[],
  bits: PlaceBits,
): PlaceChoice[] {
  const { snapshot } = open;
  const gate = open.draft.gate;
  const { reach, byText, protectedTerms, standing } = aboutNegative(open, negative);
  const weights = weighAtPlaces(snapshot, reach, bits);
  return places.map((at, p) => {
    const { weight, costly } = weights[p]!;
    const touched = touchedKeywords(open, gate, byText, at.place, costly);
    const coverer = findCoverer(snapshot, gate, standing, negative, at.place);
    return {
      ...at,
      ...{ weight, touched, protectedTerms },
      isThere: false, // as each match type has it
      coveredBy: coverer ? inWords(open, coverer) : null,
      isSafe: weight.terms > 0 && touched.length === 0 && protectedTerms.count === 0,
    };
  });
}

type About = {
  reach: Reach;
  byText: StoppedKeyword[];
  protectedTerms: Few<string>;
  standing: (NegativeText & { place: Place })[];
};

const MOST_REMEMBERED = 32;

/** What a negative does, whatever its place. Cached, because many terms hold the same words. */
const aboutNegative = derivedByKey(
  ({ match, text }: NegativeText) => `${match} ${text}`,
  (open: Open, negative): About => ({
    reach: reachOf(open.snapshot, open.draft.gate.openTo(negative)),
    byText: keywordsStoppedBy(open, negative),
    protectedTerms: fewProtectedBy(open, negative),
    standing: negativesMatching(open, negative.text),
  }),
  MOST_REMEMBERED,
);

/** Negatives that would stop a text where they are in force, as the account and the draft have them. */
function negativesMatching(open: Open, text: string): (NegativeText & { place: Place })[] {
  const { snapshot, draft } = open;
  const standing = snapshot.accountGate.matching(text).map((id) => snapshot.negative.get(id)!);
  const added = addedMatching(open, text);
  return [...standing, ...added].filter((negative) => draft.gate.holds(negative, negative.place));
}

export function inWords(
  { names }: Open,
  { text, match, place }: NegativeText & { place: Place },
): NegativeInPlace {
  return { text, match, place, placeName: describePlace(place, names) };
}

/** The fewest terms; the words at fault before the whole term; then the narrower place. */
function findSmallestSafe(choices: readonly MatchChoice[]): ChoiceAnswer['smallestSafe'] {
  const safe = choices.flatMap(({ match, places }) =>
    places.filter((p) => p.isSafe).map(({ place, weight }) => ({ match, place, weight })),
  );
  const byWords = safe.filter(({ match }) => match !== 'exact');
  const [smallest] = (byWords.length > 0 ? byWords : safe).sort(
    (a, b) => a.weight.terms - b.weight.terms || (a.match === b.match ? 0 : a.match === 'phrase' ? -1 : 1),
  );
  return smallest ? { match: smallest.match, place: smallest.place } : null;
}
