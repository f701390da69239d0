/** Both ends belong to it; days are 'YYYY-MM-DD'. */
export type Window = { from: string; to: string };

const DAY_MS = 86_400_000;

/** The day `by` days after (or, negative, before) a day. @example shiftDay('2026-03-01', -1) // '2026-02-28' */
export function shiftDay(day: string, by: number): string {
  return new Date(Date.parse(`${day}T00:00:00Z`) + by * DAY_MS).toISOString().slice(0, 10);
}

/** Days from `a` to `b`. @example daysBetween('2026-02-27', '2026-03-01') // 2 */
export function daysBetween(a: string, b: string): number {
  return Math.round((Date.parse(`${b}T00:00:00Z`) - Date.parse(`${a}T00:00:00Z`)) / DAY_MS);
}

/**
 * The look-back window (rules 7.4): `days` days that end `lagDays` before the newest day of data.
 * @example lookBack('2026-06-30', 30, 2) // { from: '2026-05-30', to: '2026-06-28' }
 */
export function lookBack(newestDay: string, days: number, lagDays: number): Window {
  const to = shiftDay(newestDay, -lagDays);
  return { from: shiftDay(to, 1 - days), to };
}
