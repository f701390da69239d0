import { MATCH_TYPES, type MatchType } from '../gate';
import { words } from '../text';
import type { Seats } from './plan';

/** An ad group of a product group, with its live keywords. */
export type SeatCandidate = {
  id: string;
  name: string;
  campaign: string;
  keywords: readonly { match: MatchType }[];
};

/**
 * The ad groups of a product group that look like its seats (rules 11): the name of the ad group, or else of its campaign,
 * says the match type; where no name in the group says it, more than half of its keywords have it. Of several the one with
 * most keywords of that match type is proposed, and of equals the first.
 * @returns null for a match type that no ad group looks like
 * @example proposeSeats([{ id: 'g1', name: 'Hives exact', campaign: 'Hives', keywords: [] }]) // { broad: null, phrase: null, exact: 'g1' }
 */
export function proposeSeats(adGroups: readonly SeatCandidate[]): Seats {
  const seatOf = (match: MatchType) => {
    const named = adGroups.filter((one) => matchInName(one) === match);
    const holding = adGroups.filter((one) => matchInName(one) === null && mostlyHolds(one, match));
    const count = ({ keywords }: SeatCandidate) => keywords.filter((one) => one.match === match).length;
    const [first, ...others] = named.length > 0 ? named : holding;
    return first ? others.reduce((best, one) => (count(one) > count(best) ? one : best), first).id : null;
  };
  return Object.fromEntries(MATCH_TYPES.map((match) => [match, seatOf(match)])) as Seats;
}

/** The match type that a name says; several, where it says several; null where it says none. */
function matchInName({ name, campaign }: SeatCandidate): MatchType | 'several' | null {
  for (const said of [name, campaign]) {
    const named = MATCH_TYPES.filter((match) => words(said).includes(match));
    if (named.length > 0) return named.length === 1 ? named[0]! : 'several';
  }
  return null;
}

function mostlyHolds({ keywords }: SeatCandidate, match: MatchType): boolean {
  return keywords.filter((one) => one.match === match).length > keywords.length / 2;
}
