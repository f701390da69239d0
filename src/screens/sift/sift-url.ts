'use client';

import { parseAsInteger, parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';
import { RETURNS, RUN_SIZES, SIFT_VIEWS, SORTS } from '@/contracts/sift';

const PARSERS = {
  view: parseAsStringLiteral(SIFT_VIEWS).withDefault('remaining'),
  returns: parseAsStringLiteral(RETURNS).withDefault('any'),
  clicks: parseAsInteger.withDefault(0),
  campaign: parseAsString.withDefault(''),
  holding: parseAsString.withDefault(''),
  text: parseAsString.withDefault(''),
  sort: parseAsStringLiteral(SORTS).withDefault('without'),
  direction: parseAsStringLiteral(['asc', 'desc'] as const).withDefault('desc'),
  n: parseAsStringLiteral(RUN_SIZES).withDefault('1'),
  days: parseAsInteger,
};

/** What Sift shows, in the URL: it can be sent to a colleague, and the Back key works. */
export function useSiftUrl() {
  return useQueryStates(PARSERS, { history: 'push' });
}
export type SiftUrl = ReturnType<typeof useSiftUrl>[0];

/** The filters as the server takes them. */
export function toSearch(url: SiftUrl, over: Record<string, string | number> = {}): string {
  const { days, n: _, ...filters } = url;
  const all = { ...filters, ...(days === null ? {} : { days }), ...over };
  return new URLSearchParams(Object.entries(all).map(([k, v]) => [k, String(v)])).toString();
}
