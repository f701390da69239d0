import { entryKey, type EntriesHealth, type EntryLine } from '@/contracts/lists';

export type EntryHealth = EntriesHealth['entries'][string];
/** An entry with what is known of it; the health comes later, and never for what is only in the tray. */
export type Row = EntryLine & { key: string; health: EntryHealth | undefined };

export const ENTRY_SORTS = [
  'text',
  'since',
  'clicks',
  'cost',
  'converting',
  'hurts',
  'covers',
  'missing',
] as const;
export type EntrySort = (typeof ENTRY_SORTS)[number];

/** Entries of a kind, as the filter names them. */
export const ENTRY_KINDS = {
  all: 'All entries',
  hurting: 'Those that touch a live keyword',
  converting: 'Those that stopped converting terms',
  needless: 'Those that are needless',
  idle: 'Those that stopped nothing',
  missing: 'Those of which a form still passes',
  tray: 'Those in the tray',
} as const;
export type EntryKind = keyof typeof ENTRY_KINDS;

export function toRows(entries: readonly EntryLine[], health: EntriesHealth | undefined): Row[] {
  return entries.map((entry) => {
    const key = entryKey(entry.match, entry.text);
    return { ...entry, key: entry.drafted === 'removed' ? `${key} gone` : key, health: health?.entries[key] };
  });
}

function isOf(kind: EntryKind, { hurts, drafted, health }: Row): boolean {
  switch (kind) {
    case 'all':
      return true;
    case 'hurting':
      return hurts > 0;
    case 'converting':
      return (health?.stopped.returningTerms ?? 0) > 0;
    case 'needless':
      return health !== undefined && health.coveredBy !== null;
    case 'idle':
      return health !== undefined && health.stopped.known > 0 && health.stopped.clicks === 0;
    case 'missing':
      return (health?.missing ?? 0) > 0;
    case 'tray':
      return drafted === 'added' || drafted === 'removed';
  }
}

/** What is sorted by; null, which is unknown, comes last either way. */
function valueOf(sort: EntrySort, row: Row): number | string | null {
  const { health } = row;
  switch (sort) {
    case 'text':
      return row.text;
    case 'since':
      return row.since;
    case 'clicks':
      return health && health.stopped.known > 0 ? health.stopped.clicks : null;
    case 'cost':
      return health && health.stopped.known > 0 ? health.stopped.costMicros : null;
    case 'converting':
      return health && health.stopped.known > 0 ? health.stopped.returningTerms : null;
    case 'hurts':
      return row.hurts;
    case 'covers':
      return health?.covers ?? null;
    case 'missing':
      return health?.missing ?? null;
  }
}

/** The entries that the filters show, in order. Equals stand by text. */
export function arrange(
  rows: readonly Row[],
  filters: { kind: EntryKind; text: string },
  sort: { by: EntrySort; isDown: boolean },
): Row[] {
  const wanted = filters.text.trim().toLowerCase();
  const shown = rows.filter((row) => isOf(filters.kind, row) && (wanted === '' || row.text.includes(wanted)));
  const keyed = shown.map((row) => ({ row, value: valueOf(sort.by, row) }));
  const way = sort.isDown ? -1 : 1;
  keyed.sort((a, b) => {
    if (a.value === null || b.value === null) return Number(a.value === null) - Number(b.value === null);
    if (a.value !== b.value) return (a.value < b.value ? -1 : 1) * way;
    return a.row.text < b.row.text ? -1 : a.row.text > b.row.text ? 1 : 0;
  });
  return keyed.map(({ row }) => row);
}
