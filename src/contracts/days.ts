import * as v from 'valibot';
import { daysBetween, type Window } from '@/core';

/** The days that are looked at: so many up to the newest that the lag lets through (rules 7.4), or from one day to another. */
export type Days = number | Window;

/** The most days of a window. */
export const MOST_DAYS = 366;

const RANGE = /^(\d{4}-\d{2}-\d{2})~(\d{4}-\d{2}-\d{2})$/;

/**
 * Reads days as they stand in an address.
 * @returns undefined where the text names none, no real day, an end before its start, or more than `MOST_DAYS`
 * @example parseDays('30') // 30
 * @example parseDays('2026-10-20~2026-11-18') // { from: '2026-10-20', to: '2026-11-18' }
 */
export function parseDays(text: string): Days | undefined {
  if (/^\d{1,3}$/.test(text)) return isLength(Number(text)) ? Number(text) : undefined;
  const [, from, to] = RANGE.exec(text) ?? [];
  if (from === undefined || to === undefined || !isDay(from) || !isDay(to)) return undefined;
  return isLength(daysBetween(from, to) + 1) ? { from, to } : undefined;
}

/** Writes days as they stand in an address. */
export function sayDays(days: Days): string {
  return typeof days === 'number' ? String(days) : `${days.from}~${days.to}`;
}

const isLength = (days: number) => days >= 1 && days <= MOST_DAYS;

/** A day of the calendar: 30 February is none. */
function isDay(text: string): boolean {
  const time = Date.parse(`${text}T00:00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().slice(0, 10) === text;
}

const NO_DAYS = `Days are a number from 1 to ${MOST_DAYS}, or two days with ~ between them: 2026-10-20~2026-11-18.`;

/** Days in an address, or in the body of a request. */
export const DaysTextSchema = v.pipe(
  v.string(),
  v.check((text) => parseDays(text) !== undefined, NO_DAYS),
  v.transform((text) => parseDays(text)!),
);

/** The days that are looked at, and those beside them. */
export const TwoDaysSchema = v.object({ days: v.optional(DaysTextSchema), beside: DaysTextSchema });
export type TwoDays = v.InferOutput<typeof TwoDaysSchema>;
