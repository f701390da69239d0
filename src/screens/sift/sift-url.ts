'use client';

import { parseAsInteger, parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';
import type * as v from 'valibot';
import {
  RANKS,
  RETURNS,
  NGRAM_SIZES,
  SERVED,
  SIFT_VIEWS,
  SORTS,
  TRAITS,
  type FiltersSchema,
} from '@/contracts/sift';
import { inDays, parseAsDays } from '@/screens/frame/data/days';

/** What stands on the work surface: the terms, their plot, or the guided pass. */
export const SHOWS = ['table', 'plot', 'pass'] as const;
export type Shows = (typeof SHOWS)[number];

const PARSERS = {
  view: parseAsStringLiteral(SIFT_VIEWS).withDefault('remaining'),
  returns: parseAsStringLiteral(RETURNS).withDefault('any'),
  served: parseAsStringLiteral(SERVED).withDefault('any'),
  trait: parseAsStringLiteral(TRAITS).withDefault('any'),
  clicks: parseAsInteger.withDefault(0),
  campaign: parseAsString.withDefault(''),
  evidence: parseAsStringLiteral(['any', 'sure'] as const).withDefault('any'),
  region: parseAsString.withDefault(''),
  holding: parseAsString.withDefault(''),
  forms: parseAsStringLiteral(['yes', 'no'] as const).withDefault('yes'),
  text: parseAsString.withDefault(''),
  sort: parseAsStringLiteral(SORTS).withDefault('without'),
  direction: parseAsStringLiteral(['asc', 'desc'] as const).withDefault('desc'),
  n: parseAsStringLiteral(NGRAM_SIZES).withDefault('1'),
  rank: parseAsStringLiteral(RANKS).withDefault('fault'),
  /** what stands in the Words panel, and on the work surface */
  panel: parseAsStringLiteral(['ngrams', 'themes'] as const).withDefault('ngrams'),
  show: parseAsStringLiteral(SHOWS).withDefault('table'),
  days: parseAsDays,
  /** other days, whose figures stand beside; as the strip names them */
  beside: parseAsString,
};

/** What Sift shows, in the URL: it can be sent to a colleague, and the Back key works. */
export function useSiftUrl() {
  return useQueryStates(PARSERS, { history: 'push' });
}
export type SiftUrl = ReturnType<typeof useSiftUrl>[0];

/** What narrows the terms; changing one of them begins a new view. */
const FILTERS = [
  ...(['view', 'returns', 'served', 'trait', 'clicks'] as const),
  ...(['campaign', 'evidence', 'region', 'holding', 'forms', 'text'] as const),
];

/** The filters as the server takes them. */
export function toFilters(url: SiftUrl): v.InferInput<typeof FiltersSchema> {
  const { view, returns, served, trait, clicks, campaign, evidence, region, holding, forms, text, days } =
    url;
  const chosen = { view, returns, served, trait, campaign, evidence, region, holding, forms, text };
  return { ...chosen, clicks: String(clicks), ...inDays(days) };
}

/** The same as one text, by which one view is told from another. */
export function toSearch(url: SiftUrl, over: Record<string, string> = {}): string {
  return new URLSearchParams({ ...toFilters(url), ...over } as Record<string, string>).toString();
}

/** What a view is remembered by: filters and sorting, as they stand in the URL, what is usual left out. */
export function toViewSearch(url: SiftUrl): string {
  const names = [...FILTERS, 'sort', 'direction'] as const;
  const kept = names.filter((name) => url[name] !== PARSERS[name].defaultValue);
  return new URLSearchParams(kept.map((name) => [name, String(url[name])])).toString();
}

/** Filters and sorting as they are in an empty URL. */
export const USUAL = Object.fromEntries(
  [...FILTERS, 'sort' as const, 'direction' as const].map((name) => [name, PARSERS[name].defaultValue]),
) as Pick<SiftUrl, (typeof FILTERS)[number] | 'sort' | 'direction'>;
