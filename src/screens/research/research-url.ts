'use client';

import { parseAsInteger, parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';
import type * as v from 'valibot';
import {
  IDEA_STATES,
  REMAINDER_SORTS,
  type IdeaState,
  type RemaindersQuerySchema,
} from '@/contracts/research';

/** What is shown of a sheet: the remainders of the ideas in a state, or the groups of those that stay. */
export type Shown = IdeaState | 'groups' | 'candidates';

const PARSERS = {
  sheet: parseAsInteger,
  shown: parseAsStringLiteral<Shown>(['groups', 'candidates', ...IDEA_STATES]).withDefault('open'),
  searches: parseAsInteger.withDefault(0),
  typed: parseAsString.withDefault(''),
  holds: parseAsStringLiteral(['none', 'any'] as const).withDefault('none'),
  source: parseAsInteger,
  /** how what stays is grouped */
  ...{ smallest: parseAsInteger.withDefault(3), words: parseAsInteger.withDefault(2) },
  ...{ groups: parseAsInteger.withDefault(40), fine: parseAsInteger.withDefault(40) },
  sort: parseAsStringLiteral(REMAINDER_SORTS).withDefault('ideas'),
};

/** What Research shows, in the URL: it can be sent to a colleague, and the Back key works. */
export function useResearchUrl() {
  return useQueryStates(PARSERS, { history: 'push' });
}
export type ResearchUrl = ReturnType<typeof useResearchUrl>[0];

/** The filters as the server takes them. */
export function toQuery({
  shown,
  searches,
  typed,
  holds,
  source,
  sort,
}: ResearchUrl): v.InferInput<typeof RemaindersQuerySchema> {
  return {
    ...{
      state: shown === 'groups' || shown === 'candidates' ? 'open' : shown,
      typed,
      holds,
      sort,
      searches: String(searches),
    },
    ...(source !== null && { source: String(source) }),
  };
}
