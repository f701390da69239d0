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
};

/** An ad group that takes part in the auction, with the best of its keywords. */
export type Bidder = Match & {
  bidMicros: number;
  /** its share of the days is this over the sum of all */
  weight: number;
  hash: number;
};
/** Who may serve a query while the account stands as it does. */
export type Auction = { query: NumberedQuery; bidders: readonly Bidder[] };

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
        best.set(adGroupId, { ...match, bidMicros, weight, hash: hashOf(adGroupId) });
    }
    return best.size === 0 ? [] : [{ query, bidders: [...best.values()] }];
  });
}

/**
 * Draws who serves a query on a day, each bidder with its weight. A bidder's luck is its own: when another goes, the days of that
 * one alone go to others (an exponential race).
 * @param mixed the query and the day
 */
export function drawWinner({ bidders }: Auction, mixed: number): Bidder {
  let [winner, first] = [bidders[0]!, Infinity];
  if (bidders.length === 1) return winner;
  for (const bidder of bidders) {
    const time = -Math.log(asShare(mix(mixed, bidder.hash))) / bidder.weight;
    if (time < first) [winner, first] = [bidder, time];
  }
  return winner;
}
