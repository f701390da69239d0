import { parseAsArrayOf, parseAsBoolean, parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';

export const TABS = ['overview', 'coverage', 'entries', 'could', 'account', 'elsewhere'] as const;
export type ListsTab = (typeof TABS)[number];

/** What the screen shows, as its address says it. */
export type ListsUrl = {
  show: ListsTab;
  list: string | null;
  campaign: string | null;
  /** filters of campaigns */
  name: string;
  status: string;
  channel: string;
  label: string;
  /** what the overview is sorted by (empty: as the lists come), and whether the most comes first; what its lists have in their name */
  by: string;
  down: boolean;
  find: string;
  /** filter of lists */
  holds: 'any' | 'words' | 'placements';
  /** groups of campaigns that are not as they would be by themselves: opened or folded */
  turned: string[];
};

export function useListsUrl(): [ListsUrl, (change: Partial<ListsUrl>) => void] {
  const text = parseAsString.withDefault('');
  const [url, setUrl] = useQueryStates({
    show: parseAsStringLiteral(TABS).withDefault('overview'),
    list: parseAsString,
    campaign: parseAsString,
    ...{ name: text, status: text, channel: text, label: text },
    by: text,
    down: parseAsBoolean.withDefault(false),
    find: text,
    holds: parseAsStringLiteral(['any', 'words', 'placements'] as const).withDefault('any'),
    turned: parseAsArrayOf(parseAsString).withDefault([]),
  });
  return [url, (change) => void setUrl(change)];
}
