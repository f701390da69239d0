'use client';

import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query';
import type { TermLine, TermsPage } from '@/contracts/sift';
import { useAccount } from '@/screens/frame/account-context';
import { ask } from '@/ui/ask';
import { toSearch, type SiftUrl } from './sift-url';

export const PAGE = 100;

/** Lines of the view, page by page as they come into sight. */
export function useLines(url: SiftUrl, visible: { from: number; to: number }) {
  const { summary, api } = useAccount();
  const page = (at: number) => ({
    queryKey: ['terms', summary.slug, toSearch(url), at],
    queryFn: () => ask<TermsPage>(api(`sift/terms?${toSearch(url, { offset: at * PAGE, most: PAGE })}`)),
    placeholderData: keepPreviousData,
  });
  const first = useQuery(page(0));
  const [from, to] = [Math.floor(visible.from / PAGE), Math.floor(visible.to / PAGE)];
  const wanted = Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i).filter(
    (at) => at > 0,
  );
  const others = useQueries({ queries: wanted.map(page) });
  const pages = new Map(wanted.map((at, i) => [at, others[i]?.data]));
  return {
    first: first.data,
    error: first.error,
    isStale: first.isPlaceholderData,
    lineAt(index: number): TermLine | undefined {
      const at = Math.floor(index / PAGE);
      const data = at === 0 ? first.data : pages.get(at);
      return data?.offset === at * PAGE ? data.lines[index % PAGE] : undefined;
    },
  };
}
