import type { SeedRequest } from '@/contracts/platform';
import { shiftDay } from '@/core';
import { buildMarketplace, makeProductCodes } from './marketplace';
import { makeQueries } from './queries';
import { drawFrom } from './random';
import { addShopping, makeShoppingQueries } from './shopping';
import { buildWebSearch } from './structure';

/** The platform's day in progress when the demo begins, and the days of its past. */
export const TODAY = '2026-11-22';
export const PAST_DAYS = 90;

/**
 * The made-up advertiser Larkfell, a bee-keeping supplier, as the stand-in platform is given it: a web search account
 * (steers by CPA) and a marketplace account (steers by ACoS). The same scale always gives the same data.
 * @param scale 1 is about 12,000 reported terms in the web search account; about 8 gives a million rows
 * @param seed other seeds give other traffic of the same advertiser; 0 is the demo
 * @param today the platform's day in progress; the traffic up to it is made at once
 */
export function makeLarkfell(scale = 1, seed = 0, today = TODAY): SeedRequest[] {
  const firstDay = shiftDay(TODAY, -PAST_DAYS);
  const draws = (of: number) => drawFrom((of + seed * 0.0917) % 1);
  const web = buildWebSearch(drawFrom(0.417), today);
  addShopping(web, today);
  const market = buildMarketplace(drawFrom(0.833), today);
  const of = ({ adGroups }: typeof web) => ({ adGroups, scale });
  return [
    {
      account: {
        id: 'larkfell-web',
        name: 'Larkfell · Web search',
        currency: 'EUR',
        seed: 41 + seed,
        firstDay,
        today,
      },
      structure: web.structure,
      queries: [
        ...makeQueries({ ...of(web), withValue: false }, draws(0.177)),
        ...makeShoppingQueries(draws(0.291)),
      ],
    },
    {
      account: {
        id: 'larkfell-market',
        name: 'Larkfell · Marketplace',
        currency: 'EUR',
        seed: 83 + seed,
        firstDay,
        today,
      },
      structure: market.structure,
      queries: [
        ...makeQueries({ ...of(market), withValue: true }, draws(0.733)),
        ...makeProductCodes(market, draws(0.555)),
      ],
    },
  ];
}

/** What Gate Post itself knows of the two accounts: how they steer, their product codes, and their own name. */
export const ACCOUNT_SETTINGS = {
  'larkfell-web': {
    steersBy: 'CPA',
    targetMicros: 26_000_000,
    targetAcos: null,
    productCodePattern: null,
    brandWords: ['larkfell'],
  },
  'larkfell-market': {
    steersBy: 'ACoS',
    targetMicros: null,
    targetAcos: 0.3,
    productCodePattern: '[A-Z]{2}-\\d{4}-[A-Z]',
    brandWords: ['larkfell'],
  },
} satisfies Record<string, Settings>;

type Settings = {
  steersBy: 'CPA' | 'ACoS';
  targetMicros: number | null;
  targetAcos: number | null;
  productCodePattern: string | null;
  brandWords: string[];
};

export const PEOPLE = ['Maren Oakes', 'Tobias Finch', 'Ilse Brandow'];
