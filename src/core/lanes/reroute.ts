import type { Lanes } from './tiers';

/** What queries brought: counts, micro-units and conversions; conversions are null where nobody counts them. */
type Brought = { clicks: number; costMicros: number; conversions: number | null };

/** What a query brought in the tier that served it, by its number. */
export type ServedQuery = Brought & { query: string; tier: number };

/** What tiers brought, as they served and as the plan says, in the order of the tiers. */
export type Rerouted = {
  really: Brought[];
  /** by the plan: clicks that move cost and bring what those of their new tier do */
  byPlan: Brought[];
  /** queries that another tier served than the plan says, dearest first: their indexes among the queries, with the tier of the plan */
  leaks: { at: number; own: number }[];
};

/**
 * Routes queries by a plan, beside how they really went (rules 10). A click that moves costs, and converts, as the clicks do of queries
 * that its new tier served rightly; where it served none, as it did where it was. It is one click there, too: what a higher bid brings
 * besides, no report tells.
 * @param tiers how many there are
 * @example rerouteQueries(compileLanes([{ id: 'all', entryTerms: [] }, { id: 'makers', entryTerms: ['pellwright'] }]), 2, [{ query: 'pellwright smoker', tier: 0, clicks: 10, costMicros: 5, conversions: 0 }, { query: 'pellwright', tier: 1, clicks: 10, costMicros: 20, conversions: 1 }]).byPlan[1] // { clicks: 20, costMicros: 40, conversions: 2 }
 */
export function rerouteQueries(lanes: Lanes, tiers: number, queries: readonly ServedQuery[]): Rerouted {
  const nothing = () =>
    Array.from({ length: tiers }, () => ({ clicks: 0, costMicros: 0, conversions: null }));
  const [really, rightly, byPlan] = [nothing(), nothing(), nothing()] as [Brought[], Brought[], Brought[]];
  const leaks: Rerouted['leaks'] = [];
  queries.forEach((served, at) => {
    const own = lanes.route(served.query);
    add(really[served.tier]!, served);
    if (own === served.tier) add(rightly[own]!, served);
    else leaks.push({ at, own });
  });
  rightly.forEach((brought, tier) => add(byPlan[tier]!, brought));
  for (const { at, own } of leaks) add(byPlan[own]!, asIn(rightly[own]!, queries[at]!));
  leaks.sort((a, b) => queries[b.at]!.costMicros - queries[a.at]!.costMicros || a.at - b.at);
  return { really, byPlan, leaks };
}

/** What the clicks of a query bring at the rates of a tier. */
function asIn(tier: Brought, { clicks, costMicros, conversions }: Brought): Brought {
  if (tier.clicks === 0) return { clicks, costMicros, conversions };
  return {
    clicks,
    costMicros: (clicks * tier.costMicros) / tier.clicks,
    conversions: tier.conversions === null ? null : (clicks * tier.conversions) / tier.clicks,
  };
}

function add(sum: Brought, { clicks, costMicros, conversions }: Brought): void {
  sum.clicks += clicks;
  sum.costMicros += costMicros;
  if (conversions !== null) sum.conversions = (sum.conversions ?? 0) + conversions;
}
