import { differenceInCalendarDays, format, parseISO, subDays, subYears } from 'date-fns';
import { lookBack, type Window } from '@/core';
import type { AccountSummary } from '@/contracts/common';
import { parseDays, sayDays } from '@/contracts/days';

/** The second range in an address: the days before, the same days last year, or any. */
export const BESIDE = { before: 'the days before', year: 'the same days last year' } as const;

const toDay = (date: Date) => format(date, 'yyyy-MM-dd');

/**
 * The days that an address means.
 * @param days as they stand in the address; null for the account's own
 * @returns null while there is no data
 */
export function windowOf(
  days: string | null,
  { window, dataDays, lagDays }: Pick<AccountSummary, 'window' | 'dataDays' | 'lagDays'>,
): Window | null {
  if (!window || !dataDays) return null;
  const wanted = days === null ? window.days : (parseDays(days) ?? window.days);
  return typeof wanted === 'number' ? lookBack(dataDays.to, wanted, lagDays) : wanted;
}

/**
 * The days that stand beside others.
 * @param beside as it stands in the address
 * @returns null where none do, or the text names none
 * @example besideOf('before', { from: '2026-10-20', to: '2026-11-18' }) // { from: '2026-09-20', to: '2026-10-19' }
 */
export function besideOf(beside: string | null, { from, to }: Window): Window | null {
  const [start, end] = [parseISO(from), parseISO(to)];
  const length = differenceInCalendarDays(end, start) + 1;
  if (beside === 'before') return { from: toDay(subDays(start, length)), to: toDay(subDays(end, length)) };
  if (beside === 'year') return { from: toDay(subYears(start, 1)), to: toDay(subYears(end, 1)) };
  const wanted = beside === null ? undefined : parseDays(beside);
  return typeof wanted === 'object' ? wanted : null;
}

/** A range as an address says it; undefined where an end is missing, lies before its start, or is too far from it. */
export function rangeText(from: string, to: string): string | undefined {
  const text = sayDays({ from, to });
  return parseDays(text) === undefined ? undefined : text;
}
