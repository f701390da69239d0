'use client';

import { parseAsInteger, parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';
import { FINDING_PILES } from '@/contracts/findings';

/** What the screen shows: what rules propose, the rules, their sets, what they did by themselves, and ready ones to begin from. */
export const SHOWN = ['findings', 'rules', 'sets', 'did', 'ready'] as const;
export type Shown = (typeof SHOWN)[number];

const PARSERS = {
  shown: parseAsStringLiteral(SHOWN).withDefault('findings'),
  pile: parseAsStringLiteral(FINDING_PILES).withDefault('open'),
  /** the rule whose sentence is open */
  rule: parseAsInteger,
  /** the name of the ready rule from which a new one begins, or the number of one's own; empty: from none */
  begin: parseAsString,
};

/** What Rules shows, in the URL: it can be sent to a colleague, and the Back key works. */
export function useRulesUrl() {
  return useQueryStates(PARSERS, { history: 'push' });
}
