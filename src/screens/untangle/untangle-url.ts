'use client';

import { parseAsArrayOf, parseAsInteger, parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';
import { NEARNESS, OTHER_STATUSES, RUNGS } from '@/contracts/duplicates';
import type { ConflictsShown } from '@/contracts/untangle';

/** A pile of conflicts, or another kind of knot. */
export type Shown = ConflictsShown | 'needless' | 'misspelt' | 'twice' | 'several';
/** as they stand side by side */
export const SHOWN = [
  'open',
  'needless',
  'misspelt',
  'twice',
  'several',
  'meant',
  'left',
] as const satisfies Shown[];

const PARSERS = {
  shown: parseAsStringLiteral(SHOWN).withDefault('open'),
  alike: parseAsStringLiteral(RUNGS).withDefault('text and match type'),
  near: parseAsStringLiteral(NEARNESS).withDefault('all'),
  campaigns: parseAsString.withDefault(''),
  besides: parseAsArrayOf(parseAsStringLiteral(OTHER_STATUSES)).withDefault([]),
  sure: parseAsInteger.withDefault(90),
  between: parseAsStringLiteral(['ad groups', 'campaigns']).withDefault('ad groups'),
  clicks: parseAsInteger.withDefault(2),
};

/** The knots that are shown, and by which questions they are found, in the URL. */
export function useUntangleUrl() {
  return useQueryStates(PARSERS, { history: 'push' });
}
export type UntangleUrl = ReturnType<typeof useUntangleUrl>[0];
