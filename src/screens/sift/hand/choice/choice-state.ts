import { placeKey, type MatchType, type Place, standTogether } from '@/core';
import type { ChoiceAnswer, MatchChoice, PlaceChoice } from '@/contracts/hand';
import type { TermLine } from '@/contracts/sift';

/** Which place is wanted: this term's own ad group or campaign, a list, or the account. */
export type WantedPlace = { kind: Place['kind']; listId: string | null };

/** The words chosen in a term, as positions from 0, and the match type wanted, if one was turned to. */
export type Chosen = { positions: readonly number[]; match: MatchType | null };

/** Chooses a word that was not chosen, and lets go one that was. */
export function togglePosition(positions: readonly number[], position: number): number[] {
  const next = positions.includes(position)
    ? positions.filter((p) => p !== position)
    : [...positions, position];
  return next.sort((a, b) => a - b);
}

/** The match type that is in hand: the one turned to, else the account's own; phrase needs neighbouring words. */
export function matchInHand({ positions, match }: Chosen, accountDefault: MatchType): MatchType {
  if (positions.length === 0) return match ?? 'exact';
  const wanted = match ?? accountDefault;
  return wanted === 'phrase' && !standTogether(positions) ? 'broad' : wanted;
}

const TURN: readonly MatchType[] = ['phrase', 'broad', 'exact'];

/** The next match type that can be had. */
export function nextMatch(current: MatchType, positions: readonly number[]): MatchType {
  const can = TURN.filter((match) => match !== 'phrase' || standTogether(positions));
  return can[(can.indexOf(current) + 1) % can.length]!;
}

/** The choice of a match type at the wanted place; where that is not offered, or none is wanted, at the campaign. */
export function placeInHand(
  choice: MatchChoice | undefined,
  wanted: WantedPlace | null,
): PlaceChoice | undefined {
  const at = (kind: Place['kind'], id: string | null) =>
    choice?.places.find(({ place }) => place.kind === kind && (kind !== 'list' || place.id === id));
  return (wanted && at(wanted.kind, wanted.listId)) ?? at('campaign', null) ?? choice?.places[0];
}

export function toWanted({ kind, id }: Place): WantedPlace {
  return { kind, listId: kind === 'list' ? id : null };
}

/** Places as a person looks for them: those that are likely, those where the term ran, and the rest. */
export type SortedPlaces = { likely: PlaceChoice[]; ran: PlaceChoice[]; rest: PlaceChoice[] };

/**
 * @param proposed where kin of the words stand
 * @param last where the last negative was put
 */
export function sortPlaces(
  places: readonly PlaceChoice[],
  proposed: WantedPlace | null,
  last: WantedPlace | null,
): SortedPlaces {
  const isAt = (wanted: WantedPlace | null, { place }: PlaceChoice) =>
    wanted !== null && place.kind === wanted.kind && (place.kind !== 'list' || place.id === wanted.listId);
  const likely = [
    ...places.filter((p) => isAt(proposed, p)),
    ...places.filter((p) => isAt(last, p) && !isAt(proposed, p)),
  ];
  const others = places.filter((p) => !likely.includes(p));
  const hasRun = ({ place }: PlaceChoice) => place.kind === 'adGroup' || place.kind === 'campaign';
  return { likely, ran: others.filter(hasRun), rest: others.filter((p) => !hasRun(p)) };
}

/** The place after the one in hand: the likely ones first, those where the term ran, then the rest. */
export function nextPlace(
  { likely, ran, rest }: SortedPlaces,
  current: PlaceChoice | undefined,
): WantedPlace | undefined {
  const places = [...likely, ...ran, ...rest];
  if (places.length === 0) return undefined;
  const at = places.findIndex(({ place }) => current && placeKey(place) === placeKey(current.place));
  return toWanted(places[(at + 1) % places.length]!.place);
}

/** Whether a match type at a place is the one that is marked as the smallest safe choice. */
export function isSmallestSafe({ smallestSafe }: ChoiceAnswer, match: MatchType, place: Place): boolean {
  return smallestSafe?.match === match && placeKey(smallestSafe.place) === placeKey(place);
}

/** Clicks to wait for where nothing says how many would settle it. */
const USUAL_WAIT = 10;

/** How many more clicks a term may have before it is looked at again: as many as would settle it (rules 7.3). */
export function clicksToWait(line: Pick<TermLine, 'clicks' | 'evidence'> | undefined): number {
  const evidence = line?.evidence;
  const more = evidence?.settlesAt ? evidence.settlesAt - evidence.clicks : USUAL_WAIT;
  return more > 0 ? more : USUAL_WAIT;
}
