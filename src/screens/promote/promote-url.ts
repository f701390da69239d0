'use client';

import { parseAsFloat, parseAsInteger, parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';
import type * as v from 'valibot';
import { PILES } from '@/contracts/knots';
import { REACHES, type PromotionsQuerySchema } from '@/contracts/promotion';

/** What the screen shows: terms that deserve a seat, exact keywords that miss, and the seats themselves. */
export const SHOWN = ['terms', 'keywords', 'seats'] as const;
/** From how sure on a keyword misses, in per cent. */
export const SURE = ['50', '80', '95'] as const;
export type Shown = (typeof SHOWN)[number];

const PARSERS = {
  shown: parseAsStringLiteral(SHOWN).withDefault('terms'),
  pile: parseAsStringLiteral(PILES).withDefault('open'),
  conversions: parseAsFloat.withDefault(1),
  reach: parseAsStringLiteral(REACHES).withDefault('all'),
  group: parseAsString,
  campaign: parseAsString,
  searchesFrom: parseAsInteger,
  searchesTo: parseAsInteger,
  /** whose seats are in hand at first */
  seatsOf: parseAsString,
  sure: parseAsStringLiteral(SURE).withDefault('80'),
};

/** What Promote shows, in the URL: it can be sent to a colleague, and the Back key works. */
export function usePromoteUrl() {
  return useQueryStates(PARSERS, { history: 'push' });
}
export type PromoteUrl = ReturnType<typeof usePromoteUrl>[0];

/** The filters as the server takes them. */
export function toQuery(url: PromoteUrl): v.InferInput<typeof PromotionsQuerySchema> {
  const { pile, conversions, reach, group, campaign, searchesFrom, searchesTo } = url;
  return {
    ...{ pile, reach, conversions: String(conversions) },
    ...(group !== null && { group }),
    ...(campaign !== null && { campaign }),
    ...(searchesFrom !== null && { searchesFrom: String(searchesFrom) }),
    ...(searchesTo !== null && { searchesTo: String(searchesTo) }),
  };
}
