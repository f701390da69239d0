import type { Db } from '../../db/connection';

/** A research sheet, without its ideas. */
export type ResearchSheet = {
  id: number;
  name: string;
  /** words that all of it is about */
  stems: string[];
  /** texts that are struck out of all ideas */
  struck: string[];
  /** rises whenever the sheet is another */
  version: number;
  /** rises only when ideas come */
  ideasVersion: number;
  madeBy: string;
  madeAt: string;
};

/** The sheets of an account, the newest first. */
export async function listSheets(db: Db, accountId: number): Promise<ResearchSheet[]> {
  const rows: Row[] = await sheets(db, accountId);
  return rows.map(toSheet);
}

/** @param lock keeps others from changing the sheet until the transaction ends */
export async function findSheet(
  db: Db,
  accountId: number,
  id: number,
  { lock = false }: { lock?: boolean } = {},
): Promise<ResearchSheet | undefined> {
  const query = sheets(db, accountId).where({ research_sheet_id: id });
  const rows: Row[] = await (lock ? query.forUpdate('s') : query);
  return rows[0] && toSheet(rows[0]);
}

/** @returns its id; undefined where another one has the name */
export async function insertSheet(
  db: Db,
  accountId: number,
  personId: number,
  name: string,
): Promise<number | undefined> {
  const [row] = await db('research_sheet')
    .insert({ account_id: accountId, name, made_by: personId })
    .onConflict(db.raw('(account_id, name) where dropped_at is null'))
    .ignore()
    .returning<{ research_sheet_id: number }[]>('research_sheet_id');
  return row?.research_sheet_id;
}

/** Changes what is given, and raises the version; that of the ideas where ideas came. */
export async function updateSheet(
  db: Db,
  accountId: number,
  id: number,
  fields: Partial<Pick<ResearchSheet, 'name' | 'stems' | 'struck'>> = {},
  { haveIdeasCome = false }: { haveIdeasCome?: boolean } = {},
): Promise<void> {
  await db('research_sheet')
    .where({ account_id: accountId, research_sheet_id: id })
    .update({
      ...fields,
      version: db.raw('version + 1'),
      ...(haveIdeasCome && { ideas_version: db.raw('ideas_version + 1') }),
    });
}

/** Throws a sheet away, or takes it back. @returns whether that was possible: its name may be another's by now */
export async function setDropped(
  db: Db,
  accountId: number,
  id: number,
  isDropped: boolean,
): Promise<boolean> {
  const { rows } = await db.raw<{ rows: object[] }>(
    `update research_sheet s set dropped_at = case when :isDropped then clock_now() end
      where account_id = :account and research_sheet_id = :id
        and (:isDropped or not exists (select 1 from research_sheet o
                                        where o.account_id = s.account_id and o.name = s.name and o.dropped_at is null
                                          and o.research_sheet_id <> s.research_sheet_id))
     returning 1`,
    { account: accountId, id, isDropped },
  );
  return rows.length > 0;
}

type Row = {
  research_sheet_id: number;
  name: string;
  stems: string[];
  struck: string[];
  version: number;
  ideas_version: number;
  person: string;
  made_at: Date;
};

const sheets = (db: Db, accountId: number) =>
  db('research_sheet as s')
    .join('person as p', 'p.person_id', 's.made_by')
    .where({ account_id: accountId })
    .whereNull('dropped_at')
    .orderBy('research_sheet_id', 'desc')
    .select('s.*', 'p.name as person')
    .select({ name: 's.name' });

const toSheet = (row: Row): ResearchSheet => ({
  ...{ id: row.research_sheet_id, name: row.name, stems: row.stems, struck: row.struck },
  ...{
    version: row.version,
    ideasVersion: row.ideas_version,
    madeBy: row.person,
    madeAt: row.made_at.toISOString(),
  },
});

export async function countIdeas(db: Db, accountId: number, sheetId: number): Promise<number> {
  const row = await db('research_idea')
    .where({ account_id: accountId, research_sheet_id: sheetId })
    .first(db.raw('count(*)::integer as n'));
  return (row as { n: number }).n;
}
