'use client';

import { parseAsArrayOf, parseAsInteger, parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';
import { NEARNESS, OTHER_STATUSES, RUNGS } from '@/contracts/duplicates';
import type { Pile } from '@/contracts/knots';
import type { ConflictsShown } from '@/contracts/untangle';

/** Kinds of knots, as they stand side by side. */
export const SHOWN = ['conflicts', 'needless', 'misspelt', 'twice', 'several', 'smaller'] as const;
export type Shown = (typeof SHOWN)[number];
/** What conflicts stand together by. */
export const GROUPED_BY = ['nothing', 'negative', 'keyword'] as const;
export type GroupedBy = (typeof GROUPED_BY)[number];
/** Only conflicts can be meant so. */
export type PileShown = ConflictsShown;

const PARSERS = {
  shown: parseAsStringLiteral(SHOWN).withDefault('conflicts'),
  pile: parseAsStringLiteral(['open', 'meant', 'left']).withDefault('open'),
  grouped: parseAsStringLiteral(GROUPED_BY).withDefault('nothing'),
  alike: parseAsStringLiteral(RUNGS).withDefault('text and match type'),
  near: parseAsStringLiteral(NEARNESS).withDefault('all'),
  campaigns: parseAsString.withDefault(''),
  besides: parseAsArrayOf(parseAsStringLiteral(OTHER_STATUSES)).withDefault([]),
  sure: parseAsInteger.withDefault(90),
  between: parseAsStringLiteral(['ad groups', 'campaigns']).withDefault('ad groups'),
  clicks: parseAsInteger.withDefault(2),
};

/** The pile that is asked for, of knots that can not be meant so. */
export const pileOf = ({ pile }: Pick<UntangleUrl, 'pile'>): Pile => (pile === 'left' ? 'left' : 'open');

/** The knots that are shown, and by which questions they are found, in the URL. */
export function useUntangleUrl() {
  return useQueryStates(PARSERS, { history: 'push' });
}
export type UntangleUrl = ReturnType<typeof useUntangleUrl>[0];
