import { randomBinomial, randomLcg, randomNormal, randomPoisson } from 'd3';
import { drawWinner, type Asked, type Auction, type Bidder } from './auction';
import { asShare, mixDay } from '../mixed';

/** What one query did on one day, in the ad group that won it. */
export type ServedDay = {
  queryId: number;
  adGroupId: string;
  keywordId: string | null;
  impressions: number;
  clicks: number;
  costMicros: number;
  /** as known at the first report of the day, one day later, two days later; the last is the truth */
  conversions: [number, number, number];
  valueMicros: [number, number, number];
};

/** Shares of the conversions that are known when the day is first reported, and a day later. */
const KNOWN_AT_FIRST = 0.7;
const KNOWN_NEXT = 0.7;

/** From this fit on a query is shown as often as it is asked. */
const FITS_WELL = 0.75;

/**
 * One day of traffic. The same day, query and seed always give the same draw, whatever else is stopped; but where campaigns are asked in
 * turns, a budget that others have spent passes a query on. Those queries come in an order that is drawn for the day.
 */
export function makeDay(auctions: readonly Auction[], day: string, seed: number): ServedDay[] {
  const dayNumber = Math.round(Date.parse(`${day}T00:00:00Z`) / 86_400_000);
  const rhythm = weekRhythm(dayNumber);
  const mixedOf = ({ query }: Auction) => mixDay(seed, dayNumber, query.id);
  const spent = new Map<string, number>();
  const isSpent = (budget: Asked['budget']) =>
    budget !== null && (spent.get(budget.id) ?? 0) >= budget.micros;
  const serveOne = (auction: Auction): ServedDay | [] => {
    const mixed = mixedOf(auction);
    if (isSurelyUnseen(auction.query.daily * rhythm, asShare(mixed))) return [];
    const winner = drawWinner(auction, mixed, isSpent);
    const served = winner && serve(auction.query, winner, rhythm, asShare(mixed));
    if (served && winner.budget)
      spent.set(winner.budget.id, (spent.get(winner.budget.id) ?? 0) + served.costMicros);
    return served ?? [];
  };
  const inTurns = auctions.filter(({ isInTurns }) => isInTurns);
  if (inTurns.length === 0) return auctions.flatMap(serveOne);
  const others = auctions.filter(({ isInTurns }) => !isInTurns);
  return [...others, ...inTurns.toSorted((a, b) => mixedOf(a) - mixedOf(b))].flatMap(serveOne);
}

/** Above this mean the drawing of a Poisson number begins with another draw (d3-random). */
const SMALL_MEAN = 16;

/**
 * Whether a query has no impression on a day, whoever wins it: the first draw passes the mean, and no winner raises it. Most
 * queries are rare, so that most are done with here, without an auction.
 */
export function isSurelyUnseen(mostDaily: number, seed: number): boolean {
  return mostDaily <= SMALL_MEAN && -Math.log1p(-randomLcg(seed)()) > mostDaily;
}

function serve(
  query: Auction['query'],
  { adGroupId, keywordId, fit, bidMicros }: Bidder,
  rhythm: number,
  seed: number,
): ServedDay | undefined {
  const source = randomLcg(seed);
  // What fits less is shown less; a bid below what clicks cost wins fewer auctions of the day, and those for less.
  const share = Math.min(1, Math.sqrt(fit / FITS_WELL)) * Math.min(1, bidMicros / query.cpcMicros);
  const cpcMicros = Math.min(query.cpcMicros, bidMicros);
  const impressions = randomPoisson.source(source)(query.daily * rhythm * share)();
  if (impressions === 0) return undefined;
  const clicks = randomBinomial.source(source)(impressions, query.ctr)();
  const noise = Math.exp(randomNormal.source(source)(0, 0.15)());
  const converted = randomBinomial.source(source)(clicks, query.cvr)();
  const first = randomBinomial.source(source)(converted, KNOWN_AT_FIRST)();
  const second = first + randomBinomial.source(source)(converted - first, KNOWN_NEXT)();
  const worth =
    Math.round((query.valueMicros * Math.exp(randomNormal.source(source)(0, 0.2)())) / 10_000) * 10_000;
  return {
    queryId: query.id,
    ...{ adGroupId, keywordId },
    impressions,
    clicks,
    costMicros: Math.round((clicks * cpcMicros * noise) / 10_000) * 10_000,
    conversions: [first, second, converted],
    valueMicros: [first * worth, second * worth, converted * worth],
  };
}

/** Bee-keepers plan at the weekend. */
function weekRhythm(dayNumber: number): number {
  const weekday = (dayNumber + 4) % 7; // 0 is Sunday
  return weekday === 0 || weekday === 6 ? 1.3 : 0.88;
}
