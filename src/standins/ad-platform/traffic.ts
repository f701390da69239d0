import { randomBinomial, randomLcg, randomNormal, randomPoisson } from 'd3';
import type { AccountGate } from '@/core';
import type { PlatformQuery } from '@/contracts/platform';

/** What one query did on one day, in the ad group that was left to serve it. */
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
/** A query that falls to another ad group fits less well there. */
const LOST_WITH_EACH_FALL = 0.45;

/** What else than negatives decides whether and at what price a query is served. */
export type Service = {
  mayServe(candidate: Route['candidate'], text: string): boolean;
  /** the most that a click may cost, micro-units */
  bidOf(keywordId: string | null): number | undefined;
};

type Route = {
  query: PlatformQuery & { id: number };
  candidate: PlatformQuery['candidates'][number];
  share: number;
};

/** Where each query is served as the gate stands: by the first candidate whose ad group does not stop it. */
export function routeQueries(
  queries: readonly (PlatformQuery & { id: number })[],
  gate: AccountGate,
  service: Service,
): Route[] {
  return queries.flatMap((query) => {
    const matching = gate.matching(query.text);
    const open = (candidate: Route['candidate']) =>
      service.mayServe(candidate, query.text) &&
      !matching.some((id) => gate.isInForce(id, candidate.adGroupId));
    const at = query.candidates.findIndex(open);
    if (at < 0) return [];
    const candidate = query.candidates[at]!;
    const bid = service.bidOf(candidate.keywordId) ?? candidate.cpcMicros;
    // A bid below what clicks cost so far wins fewer auctions, and those for less.
    const reach = Math.min(1, bid / candidate.cpcMicros);
    return [
      {
        ...{ query, share: reach * (1 - LOST_WITH_EACH_FALL) ** at },
        candidate: { ...candidate, cpcMicros: Math.min(candidate.cpcMicros, bid) },
      },
    ];
  });
}

/** One day of traffic. The same day, query and seed always give the same draw, whatever else is stopped. */
export function makeDay(routes: readonly Route[], day: string, seed: number): ServedDay[] {
  const dayNumber = Math.round(Date.parse(`${day}T00:00:00Z`) / 86_400_000);
  const rhythm = weekRhythm(dayNumber);
  return routes.flatMap((route) => serve(route, rhythm, mixed(seed, dayNumber, route.query.id)) ?? []);
}

function serve({ query, candidate, share }: Route, rhythm: number, seed: number): ServedDay | undefined {
  const source = randomLcg(seed);
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
    adGroupId: candidate.adGroupId,
    keywordId: candidate.keywordId,
    impressions,
    clicks,
    costMicros: Math.round((clicks * candidate.cpcMicros * noise) / 10_000) * 10_000,
    conversions: [first, second, converted],
    valueMicros: [first * worth, second * worth, converted * worth],
  };
}

/** Bee-keepers plan at the weekend. */
function weekRhythm(dayNumber: number): number {
  const weekday = (dayNumber + 4) % 7; // 0 is Sunday
  return weekday === 0 || weekday === 6 ? 1.3 : 0.88;
}

/** A well-mixed seed in 0..1 from three integers (the finaliser of MurmurHash3, A. Appleby 2011). */
function mixed(...parts: number[]): number {
  let h = 0x9e3779b9;
  for (const part of parts) {
    h = Math.imul(h ^ part, 0x85ebca6b);
    h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
    h ^= h >>> 16;
  }
  return (h >>> 0) / 4_294_967_296;
}
