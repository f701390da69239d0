import { createParser, useQueryState } from 'nuqs';
import { parseDays } from '@/contracts/days';

/** The days that are looked at, as they stand in the address; what names no days is left out. */
export const parseAsDays = createParser({
  parse: (text) => (parseDays(text) === undefined ? null : text),
  serialize: (text: string) => text,
});

/** The days that are looked at, in the URL; null are the account's own. */
export function useDays(): [string | null, (days: string | null) => void] {
  const [days, setDays] = useQueryState('days', parseAsDays.withOptions({ clearOnDefault: true }));
  return [days, (next) => void setDays(next)];
}

/** The days as a query says them; nothing where they are the account's own. */
export function inDays(days: string | null): { days?: string } {
  return days === null ? {} : { days };
}
