'use client';

import { parseAsInteger, parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';
import type * as v from 'valibot';
import { IDEA_STATES, REMAINDER_SORTS, type RemaindersQuerySchema } from '@/contracts/research';

const PARSERS = {
  sheet: parseAsInteger,
  state: parseAsStringLiteral(IDEA_STATES).withDefault('open'),
  searches: parseAsInteger.withDefault(0),
  typed: parseAsString.withDefault(''),
  holds: parseAsStringLiteral(['none', 'any'] as const).withDefault('none'),
  source: parseAsInteger,
  sort: parseAsStringLiteral(REMAINDER_SORTS).withDefault('ideas'),
};

/** What Research shows, in the URL: it can be sent to a colleague, and the Back key works. */
export function useResearchUrl() {
  return useQueryStates(PARSERS, { history: 'push' });
}
export type ResearchUrl = ReturnType<typeof useResearchUrl>[0];

/** The filters as the server takes them. */
export function toQuery({
  state,
  searches,
  typed,
  holds,
  source,
  sort,
}: ResearchUrl): v.InferInput<typeof RemaindersQuerySchema> {
  return {
    ...{ state, typed, holds, sort, searches: String(searches) },
    ...(source !== null && { source: String(source) }),
  };
}
