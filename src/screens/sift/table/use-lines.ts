'use client';

import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query';
import type { Window } from '@/core';
import { sayDays } from '@/contracts/days';
import type { TermLine } from '@/contracts/sift';
import { toFilters, type SiftUrl } from '../sift-url';
import { useRoutes } from '@/screens/frame/data/routes';

const PAGE = 100;
/** Pages that are out of sight are let go of soon: there may be thousands of them. */
const KEPT_MS = 30_000;

type PagesInSight = { from: number; to: number };
export const pageOf = (index: number) => Math.floor(index / PAGE);

/** Lines of the view, page by page as they come into sight. */
export function useLines(url: SiftUrl, beside: Window | null, { from, to }: PagesInSight, total = Infinity) {
  const { query } = useRoutes();
  const sorted = {
    ...{ ...toFilters(url), sort: url.sort, direction: url.direction, most: String(PAGE) },
    ...(beside && { beside: sayDays(beside) }),
  };
  const page = (at: number) => ({
    ...query('GET sift/terms', { query: { ...sorted, offset: String(at * PAGE) } }),
    placeholderData: keepPreviousData,
    gcTime: KEPT_MS,
  });
  const first = useQuery(page(0));
  const wanted = Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i).filter(
    (at) => at > 0 && at * PAGE < total,
  );
  const others = useQueries({ queries: wanted.map(page) });
  const pages = new Map(wanted.map((at, i) => [at, others[i]?.data]));
  return {
    first: first.data,
    error: first.error,
    /** lines of what was shown before stand in for some that are on their way */
    isStale: first.isPlaceholderData || others.some(({ isPlaceholderData }) => isPlaceholderData),
    /** a page in sight is being asked for */
    isOnItsWay: first.isFetching || others.some(({ isFetching }) => isFetching),
    lineAt(index: number): TermLine | undefined {
      const at = pageOf(index);
      const data = at === 0 ? first.data : pages.get(at);
      return data?.offset === at * PAGE ? data.lines[index % PAGE] : undefined;
    },
  };
}
