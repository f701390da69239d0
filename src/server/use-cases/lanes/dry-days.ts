import { group, rollup, sum } from 'd3';
import type { CampaignDay } from '../../repositories/campaign-days';
import type { Campaign } from '../../repositories/structure/structure';

/** A budget of which so much is spent is spent: platforms stop a little early, and report in cents. */
const SPENT = 0.99;

/** What campaigns pay out of: their own budget, or one that they share. */
const purseOf = ({ id, sharedBudget }: Campaign) =>
  sharedBudget === null ? `of ${id}` : `shared ${sharedBudget}`;

/** Campaigns that pay out of the same budgets as some of them. */
export function payingWith(campaigns: readonly Campaign[], ids: readonly string[]): Campaign[] {
  const purses = new Set(campaigns.filter(({ id }) => ids.includes(id)).map(purseOf));
  return campaigns.filter((one) => purses.has(purseOf(one)));
}

/**
 * The days on which campaigns spent the budget out of which they pay, by their ids; held against the budget as it is now.
 * @param days what all campaigns cost that pay out of these budgets
 */
export function dryDaysOf(
  campaigns: readonly Campaign[],
  days: readonly CampaignDay[],
): ReadonlyMap<string, string[]> {
  const campaignOf = new Map(campaigns.map((one) => [one.id, one]));
  const known = days.filter(({ campaignId }) => campaignOf.has(campaignId));
  const spent = rollup(
    known,
    (of) => sum(of, ({ costMicros }) => costMicros),
    ({ campaignId }) => purseOf(campaignOf.get(campaignId)!),
    ({ day }) => day,
  );
  const byPurse = group(campaigns, purseOf);
  return new Map(
    [...byPurse].flatMap(([purse, of]) => {
      const { budgetMicros } = of[0]!;
      if (budgetMicros === null) return [];
      const dry = [...(spent.get(purse) ?? [])].flatMap(([day, cost]) =>
        cost >= SPENT * budgetMicros ? [day] : [],
      );
      return dry.length === 0 ? [] : of.map(({ id }) => [id, dry.toSorted()] as const);
    }),
  );
}
