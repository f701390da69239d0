'use client';

import { parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';

/** What the screen shows of a plan: queries that went elsewhere, what lets queries in, and its tiers beside how it was. */
export const SHOWN = ['leaks', 'terms', 'tiers'] as const;
export type Shown = (typeof SHOWN)[number];

const PARSERS = {
  shown: parseAsStringLiteral(SHOWN).withDefault('leaks'),
  /** the plan; the first where none is named */
  plan: parseAsString,
};

/** What Lanes shows, in the URL: it can be sent to a colleague, and the Back key works. */
export function useLanesUrl() {
  return useQueryStates(PARSERS, { history: 'push' });
}
