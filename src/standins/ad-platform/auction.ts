import type { AccountGate } from '@/core';
import type { PlatformQuery } from '@/contracts/platform';
import type { Match } from './keyword-matching';
import { asShare, hashOf, mix } from '../mixed';

export type NumberedQuery = PlatformQuery & { id: number };
/** A query with all that matches it, whether it may serve now or not. */
export type MatchedQuery = { query: NumberedQuery; matches: readonly Match[] };

/** What else than negatives decides whether and at what price a query is served. */
export type Service = {
  mayServe(match: Pick<Match, 'adGroupId' | 'keywordId'>, text: string): boolean;
  /** the most that a click may cost, micro-units; undefined where the ad group has no keyword */
  bidOf(keywordId: string | null): number | undefined;
  /** how an ad group's campaign is asked */
  askedOf(adGroupId: string): Asked;
};

/** When a campaign is asked among those that could serve a query, and out of what it pays. */
export type Asked = {
  /** 1 is asked first; a campaign without a priority is always asked */
  turn: number | null;
  /** what a day may cost all campaigns of one budget; null where none binds */
  budget: { id: string; micros: number } | null;
};

/** An ad group that takes part in the auction, with the best of its keywords. */
export type Bidder = Match &
  Asked & {
    bidMicros: number;
    /** its share of the days is this over the sum of all */
    weight: number;
    hash: number;
  };
/** Who may serve a query while the account stands as it does. */
export type Auction = {
  query: NumberedQuery;
  bidders: readonly Bidder[];
  /** whether some of them are asked in turns, so that it matters who has spent its budget */
  isInTurns: boolean;
};

/** How much more often the nearer of two wins. */
const SHARPNESS = 6;
/** Ad groups without keywords bid so much over what clicks cost. */
const AUTOMATIC_BID = 1.4;

/** The auctions that have a bidder, in the order of the queries. */
export function openAuctions(all: readonly MatchedQuery[], gate: AccountGate, service: Service): Auction[] {
  return all.flatMap(({ query, matches }) => {
    const negatives = gate.matching(query.text);
    const best = new Map<string, Bidder>();
    for (const match of matches) {
      const { adGroupId, keywordId, fit } = match;
      if (!service.mayServe(match, query.text)) continue;
      if (negatives.some((id) => gate.isInForce(id, adGroupId))) continue;
      const bidMicros = service.bidOf(keywordId) ?? Math.round(AUTOMATIC_BID * query.cpcMicros);
      const weight = bidMicros * fit ** SHARPNESS;
      if (weight > (best.get(adGroupId)?.weight ?? 0))
        best.set(adGroupId, {
          ...match,
          ...service.askedOf(adGroupId),
          bidMicros,
          weight,
          hash: hashOf(adGroupId),
        });
    }
    const bidders = [...best.values()];
    return best.size === 0 ? [] : [{ query, bidders, isInTurns: bidders.some(({ turn }) => turn !== null) }];
  });
}

/**
 * Draws who serves a query on a day, each bidder with its weight. A bidder's luck is its own: when another goes, the days of that
 * one alone go to others (an exponential race).
 * @param mixed the query and the day
 * @param isSpent whether a budget of the day is spent; of campaigns with a priority, those that are asked first and can still pay take part
 * @returns undefined where nobody can pay any more
 */
export function drawWinner(
  { bidders, isInTurns }: Auction,
  mixed: number,
  isSpent: (budget: Asked['budget']) => boolean = () => false,
): Bidder | undefined {
  const asked = isInTurns ? inTurn(bidders, isSpent) : bidders;
  let [winner, first] = [asked[0], Infinity];
  if (asked.length <= 1) return winner;
  for (const bidder of asked) {
    const time = -Math.log(asShare(mix(mixed, bidder.hash))) / bidder.weight;
    if (time < first) [winner, first] = [bidder, time];
  }
  return winner;
}

/** Who can pay, and comes before all others that can. */
function inTurn(bidders: readonly Bidder[], isSpent: (budget: Asked['budget']) => boolean): Bidder[] {
  const paying = bidders.filter(({ budget }) => !isSpent(budget));
  const first = Math.min(...paying.map(({ turn }) => turn ?? Infinity));
  return paying.filter(({ turn }) => turn === null || turn === first);
}
