import type { Db } from '../../db/connection';

export const SOURCE_KINDS = [
  'ideas',
  'completions',
  'combinations',
  'file',
  'paste',
  'brief',
  'keywords',
  'pack',
] as const;
export type SourceKind = (typeof SOURCE_KINDS)[number];

/** One gathering of ideas into a sheet. */
export type ResearchSource = {
  id: number;
  kind: SourceKind;
  title: string;
  /** what was asked for, so that it can be asked again */
  asked: unknown;
  /** ideas that it gave, and those that the sheet did not have */
  given: number;
  added: number;
  /** what it did not give, in words; null where it gave all */
  missing: string | null;
  /** taken out of the sheet */
  isOut: boolean;
  who: string;
  at: string;
};

/** Where the ideas of a sheet came from, in the order in which they came. */
export async function listSources(db: Db, accountId: number, sheetId: number): Promise<ResearchSource[]> {
  const rows = await db('research_source as s')
    .join('person as p', 'p.person_id', 's.person_id')
    .where({ account_id: accountId, research_sheet_id: sheetId })
    .orderBy('research_source_id')
    .select('s.*', 'p.name as person');
  return rows.map((row) => ({
    ...{ id: row.research_source_id, kind: row.kind, title: row.title, asked: row.asked },
    ...{ given: row.given, added: row.added, missing: row.missing, who: row.person, isOut: row.is_out },
    at: row.at.toISOString(),
  }));
}

/** Takes a source out of its sheet, or puts it back. */
export async function setOut(
  db: Db,
  accountId: number,
  sheetId: number,
  id: number,
  isOut: boolean,
): Promise<void> {
  await db('research_source')
    .where({ account_id: accountId, research_sheet_id: sheetId, research_source_id: id })
    .update({ is_out: isOut });
}

type NewSource = Pick<ResearchSource, 'kind' | 'title' | 'asked' | 'missing'> & { personId: number };

/** @returns its id; what it gave is noted when the ideas are in */
export async function insertSource(
  db: Db,
  accountId: number,
  sheetId: number,
  { kind, title, asked, missing, personId }: NewSource,
): Promise<number> {
  const [row] = await db('research_source')
    .insert({
      ...{ account_id: accountId, research_sheet_id: sheetId, kind, title, missing },
      ...{ asked: JSON.stringify(asked), given: 0, added: 0, person_id: personId },
    })
    .returning<{ research_source_id: number }[]>('research_source_id');
  return row!.research_source_id;
}

export async function noteGiven(
  db: Db,
  accountId: number,
  sourceId: number,
  counts: Pick<ResearchSource, 'given' | 'added'>,
): Promise<void> {
  await db('research_source').where({ account_id: accountId, research_source_id: sourceId }).update(counts);
}

/** Ids of the sources that gave a sheet ready negatives instead of ideas: briefs and packs. */
export async function candidateSources(
  db: Db,
  accountId: number,
  sheetId: number,
): Promise<ReadonlySet<number>> {
  const rows: { research_source_id: number }[] = await db('research_source')
    .where({ account_id: accountId, research_sheet_id: sheetId })
    .whereIn('kind', ['brief', 'pack'])
    .select('research_source_id');
  return new Set(rows.map((row) => row.research_source_id));
}
