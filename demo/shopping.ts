import type { PlatformQuery, Structure } from '@/contracts/platform';
import { shiftDay } from '@/core';
import type { Draw } from './random';
import { addCampaign, addNegative, type Builder } from './structure';

/** Three campaigns for the same products that are asked one after another. What they lack, or have too much of, makes a leak of each kind. */
const TIERS = [
  { id: 'C16', name: 'Shopping · All queries', priority: 'high', budget: 60 },
  { id: 'C17', name: 'Shopping · Maker names', priority: 'medium', budget: 4.5 },
  { id: 'C18', name: 'Shopping · Series', priority: 'low', budget: 60 },
] as const;
const adGroupOf = (tier: number) => `GS${tier + 1}`;
const placeOf = (tier: number) => ({ kind: 'campaign', id: TIERS[tier]!.id }) as const;

/** Days ago that the negatives of the tiers were made. */
const LONG_AGO = 210;

/** What the plan of the demo says of the tiers. */
export const SHOPPING_PLAN = {
  name: 'Shopping',
  tiers: TIERS.map(({ name }, tier) => ({
    ...{ name: name.slice('Shopping · '.length), campaign: name },
    entryTerms: [[], ['tarnbrook', 'elmcote'], ['series two']][tier]!,
  })),
};

/** Adds the tiers to an account. No keyword of it matches their queries. */
export function addShopping(builder: Builder, today: string): void {
  const since = shiftDay(today, -LONG_AGO);
  TIERS.forEach(({ id, name, priority, budget }, tier) => {
    addCampaign(builder, id, name, {
      ...{ channel: 'shopping', priority, budgetMicros: budget * 1_000_000 },
    });
    const adGroup: Structure['adGroups'][number] = {
      id: adGroupOf(tier),
      campaignId: id,
      name: 'All products',
      status: 'live',
    };
    builder.structure.adGroups.push(adGroup);
  });
  // “tarnbrook” was forgotten in the first tier.
  addNegative(builder, 'elmcote', 'phrase', placeOf(0), since);
  for (const tier of [0, 1]) addNegative(builder, 'series two', 'phrase', placeOf(tier), since);
  // Somebody took a word for a bad one that only this tier should get.
  addNegative(builder, 'cheap', 'broad', placeOf(0), since);
  // Meant as an entry term of the last tier, which the plan does not know.
  for (const tier of [0, 1]) addNegative(builder, 'series three', 'phrase', placeOf(tier), since);
}

const PRODUCTS = [
  'propolis trap',
  'pollen trap',
  'feeder float',
  'swarm catcher',
  'frame cleaner',
  'bottling tap',
];
const GENERIC = ['{p}', '{p} wooden', 'large {p}', '{p} buy', 'cheap {p}', '{p} for garden'];
const BY_NAME = ['tarnbrook {p}', '{p} tarnbrook', 'elmcote {p}', '{p} by elmcote'];
const BY_SERIES = ['{p} series two', 'tarnbrook series two {p}', '{p} series three'];

/** What people ask that look for these products: the nearer to a product of ours, the more often they buy. */
export function makeShoppingQueries(draw: Draw): PlatformQuery[] {
  const asked = (templates: readonly string[], daily: number, cvr: number) =>
    templates.flatMap((template) =>
      PRODUCTS.map((product): PlatformQuery => ({
        text: template.replace('{p}', product),
        daily: daily * draw.spread(0.7),
        ctr: Math.min(0.5, 0.05 * draw.spread(0.25)),
        cvr: Math.min(0.6, cvr * draw.spread(0.2)),
        valueMicros: 36_000_000,
        unreported: false,
        cpcMicros: Math.round(42 * draw.spread(0.15)) * 10_000,
        means: [],
        automaticIn: TIERS.map((_, tier) => adGroupOf(tier)),
      })),
    );
  return [...asked(GENERIC, 8, 0.012), ...asked(BY_NAME, 12, 0.03), ...asked(BY_SERIES, 10, 0.055)];
}
