import { format, parseISO } from 'date-fns';

const count = new Intl.NumberFormat('en', { maximumFractionDigits: 0 });
const few = new Intl.NumberFormat('en', { maximumFractionDigits: 2 });

const plural = new Intl.PluralRules('en');

/** What stands where a figure is undefined or unknown. */
const NONE = '–';

export function formatCount(value: number | null): string {
  return value === null ? NONE : count.format(value);
}

/** Conversions may be fractions. */
export function formatConversions(value: number | null): string {
  return value === null ? NONE : few.format(value);
}

/** @example conversionsOf({ conversions: 1 }) // '1 conversion' */
export function conversionsOf({ conversions }: { conversions: number | null }): string {
  if ((conversions ?? 0) === 0) return 'no conversion';
  return `${formatConversions(conversions)} ${plural.select(conversions ?? 0) === 'one' ? 'conversion' : 'conversions'}`;
}

/** A share as a percentage. @example formatShare(0.071) // '7 %' */
export function formatShare(share: number | null): string {
  return share === null ? NONE : `${count.format(share * 100)} %`;
}

/** @example formatDay('2026-10-22') // '22 Oct' */
export function formatDay(day: string, withYear = false): string {
  return format(parseISO(day), withYear ? 'd MMM yyyy' : 'd MMM');
}

/** @example formatDays({ from: '2026-10-22', to: '2026-11-20' }) // '22 Oct – 20 Nov' */
export function formatDays({ from, to }: { from: string; to: string }, withYear = false): string {
  return `${formatDay(from, withYear && from.slice(0, 4) !== to.slice(0, 4))} – ${formatDay(to, withYear)}`;
}

/**
 * A place by its name, and its status where it serves nothing.
 * @example withStatus({ name: 'Spring', status: 'paused' }) // 'Spring (paused)'
 */
export function withStatus({ name, status }: { name: string; status: string }): string {
  return status === 'paused' || status === 'ended' ? `${name} (${status})` : name;
}

/** A moment in this browser's time. @example formatMoment('2026-11-20T09:05:00Z') // '20 Nov, 09:05' */
export function formatMoment(at: string): string {
  return format(parseISO(at), 'd MMM, HH:mm');
}

/** An amount that may lie below 0. @example balance(-3, String) // '−3' */
export function balance(amount: number, write: (size: number) => string): string {
  return amount < 0 ? `−${write(-amount)}` : write(amount);
}

/**
 * A difference with its sign, by how its size is written; nothing where there is none.
 * @example signed(-3, String) // '−3'
 */
export function signed(difference: number, write: (size: number) => string): string {
  if (difference === 0) return '0';
  return `${difference > 0 ? '+' : '−'}${write(Math.abs(difference))}`;
}
