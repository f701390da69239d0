import { entryKey, type EntriesHealth, type EntryLine } from '@/contracts/list-entries';

export type EntryHealth = EntriesHealth['entries'][string];
/** An entry with what is known of it; the health comes later, and never for what is only in the tray. */
export type Row = EntryLine & { key: string; health: EntryHealth | undefined };

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

/** The entries that the filters show. */
export function pickEntries(rows: readonly Row[], filters: { kind: EntryKind; text: string }): Row[] {
  const wanted = filters.text.trim().toLowerCase();
  return rows.filter((row) => isOf(filters.kind, row) && (wanted === '' || row.text.includes(wanted)));
}
