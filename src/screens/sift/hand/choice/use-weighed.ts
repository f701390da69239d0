'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { ChoiceAnswer, TermDetail } from '@/contracts/hand';
import type { TermLine } from '@/contracts/sift';
import { useRoutes } from '@/screens/frame/data/routes';
import { inDays } from '@/screens/frame/data/days';

type Looked = { days: string | null; campaign: string };

export type Weighed = {
  /** what each choice about the term in hand would do; undefined while it is under way */
  answer: ChoiceAnswer | undefined;
  detail: TermDetail | undefined;
  /** the answer is of the words chosen before */
  isStale: boolean;
  error: Error | null;
  /**
   * Both answers, waited for where they are still under way: a key pressed early is not lost.
   * @throws NoAnswer without a connection, Declined with the server's reason
   */
  whenReady(): Promise<{ answer: ChoiceAnswer; detail: TermDetail }>;
};

/**
 * What the server says about a term and the words chosen in it.
 * @param positions of the chosen words, from 0
 */
export function useWeighed(
  line: TermLine | undefined,
  positions: readonly number[],
  { days, campaign }: Looked,
): Weighed {
  const routes = useRoutes();
  const id = line?.id ?? -1;
  const words = positions.join(',');
  const looked = { term: String(id), campaign, ...inDays(days) };
  const asked = { query: { ...looked, words } };

  const choice = useQuery({
    ...routes.query('GET sift/choice', asked),
    enabled: line !== undefined,
    placeholderData: keepPreviousData,
    gcTime: 60_000,
  });
  const term = useQuery({
    ...routes.query('GET sift/term', { query: looked }),
    enabled: line !== undefined,
    gcTime: 60_000,
  });
  const answer = choice.data?.id === id ? choice.data : undefined;
  const detail = term.data;
  return {
    answer,
    detail,
    isStale: choice.isPlaceholderData,
    error: choice.error ?? term.error,
    // Asked for once more instead of joining the question under way, which ends when the row in hand changes. What was known before
    // the last decision is no answer: the term may be stopped there by now, and open elsewhere.
    async whenReady() {
      const [theAnswer, theDetail] = await Promise.all([
        answer && !choice.isFetching ? answer : routes.call('GET sift/choice', asked),
        detail && !term.isFetching ? detail : routes.call('GET sift/term', { query: looked }),
      ]);
      return { answer: theAnswer, detail: theDetail };
    },
  };
}
