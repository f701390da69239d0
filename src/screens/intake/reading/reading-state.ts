import type { ColumnRole, ReadDecisions, Reading } from '@/core';

/** Gives a role to a column, or takes it (null): who had it by a person's word gives it up. */
export function withRole(
  decisions: ReadDecisions,
  columns: Reading['columns'],
  index: number,
  role: ColumnRole | null,
): ReadDecisions {
  const roles: Record<number, ColumnRole | null> = { ...decisions.roles };
  if (role !== null) for (const column of columns) if (column.role === role) roles[column.index] = null;
  return { ...decisions, roles: { ...roles, [index]: role } };
}

/** Another form of the file (its separator, header line, what it is about): what was said of columns no longer holds. */
export function withForm(
  decisions: ReadDecisions,
  form: Pick<ReadDecisions, 'encoding' | 'separator' | 'headerLine' | 'kind'>,
): ReadDecisions {
  const { roles, decimalMarks, ...others } = decisions;
  const isSameTable = !('separator' in form) && !('headerLine' in form) && !('kind' in form);
  return { ...others, ...(isSameTable && { roles, decimalMarks }), ...form };
}

export function isDecided(decisions: ReadDecisions): boolean {
  return Object.values(decisions).some((value) => value !== undefined);
}

/** One day of the strip: data is there, the file brings it, or both (it will be replaced); or nothing is known of it. */
export type StripDay = { day: string; state: 'there' | 'new' | 'both' | 'gap'; rows: number };

/** Days in sight at once; where data reaches over more, the newest. */
const LONGEST_STRIP = 120;

/**
 * The days from the first that holds data to the last, and those that a file brings.
 * @param there days that hold data, ascending
 * @param brought rows of the file by day
 */
export function stripOf(there: readonly string[], brought: Readonly<Record<string, number>>): StripDay[] {
  const known = new Set(there);
  const all = [...known, ...Object.keys(brought)].sort();
  const [first, last] = [all[0], all.at(-1)];
  if (first === undefined || last === undefined) return [];
  const days: StripDay[] = [];
  for (let at = Date.parse(last); days.length < LONGEST_STRIP && at >= Date.parse(first); at -= DAY_MS) {
    const day = new Date(at).toISOString().slice(0, 10);
    const rows = brought[day] ?? 0;
    const state = known.has(day) ? (rows > 0 ? 'both' : 'there') : rows > 0 ? 'new' : 'gap';
    days.unshift({ day, state, rows });
  }
  return days;
}

const DAY_MS = 24 * 60 * 60 * 1_000;

/** @example countStates(stripOf(['2026-10-01'], { '2026-10-02': 3 })).new // 1 */
export function countStates(days: readonly StripDay[]): Record<StripDay['state'], number> {
  const counts = { there: 0, new: 0, both: 0, gap: 0 };
  for (const { state } of days) counts[state] += 1;
  return counts;
}

/** What is left of a load in words; nothing while it can not be told. @param rate rows a second */
export function timeLeft(read: number, total: number | null, rate: number | null): string {
  if (total === null || rate === null || rate <= 0 || read >= total) return '';
  const seconds = Math.ceil((total - read) / rate);
  return seconds < 90 ? `${seconds} s left` : `${Math.ceil(seconds / 60)} min left`;
}

/** A size in bytes. @example formatSize(2_100_000) // '2.1 MB' */
export function formatSize(bytes: number): string {
  if (bytes < 1_000) return `${bytes} B`;
  const [value, unit] =
    bytes < 1e6 ? [bytes / 1e3, 'kB'] : bytes < 1e9 ? [bytes / 1e6, 'MB'] : [bytes / 1e9, 'GB'];
  return `${value.toFixed(value < 10 ? 1 : 0)} ${unit}`;
}
