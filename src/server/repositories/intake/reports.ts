import type { ReadDecisions, RejectedRow, ReportKind } from '@/core';
import { clockNow, type Db } from '../../db/connection';

export type ReportState =
  'uploaded' | 'waiting' | 'loading' | 'loaded' | 'cancelled' | 'failed' | 'taking back' | 'taken back';

/** What a load did. */
export type LoadOutcome = {
  rows: number;
  rejected: number;
  /** facts (a day of a term under a keyword) that were new, and that replaced what was there */
  added: number;
  replaced: number;
  newTerms: number;
  days: { from: string; to: string } | null;
  /** of a structure file: how many changes that were said to be done it shows, and how many of them as said */
  said?: { compared: number; there: number };
};

export type ReportFile = {
  id: number;
  name: string;
  source: 'file' | 'platform';
  digest: string;
  sizeBytes: number;
  storedAs: string;
  state: ReportState;
  /** how it is to be read */
  options: ReadDecisions;
  kind: ReportKind;
  rowsRead: number;
  outcome: LoadOutcome | null;
  error: string | null;
  personId: number | null;
  createdAt: string;
  startedAt: string | null;
  loadedAt: string | null;
  /** whether its bytes are gone: it can not be read again */
  isGone: boolean;
};

const COLUMNS = [
  ...['report_file_id', 'name', 'source', 'digest', 'size_bytes', 'stored_as', 'state', 'options'],
  ...['rows_read', 'outcome', 'error', 'person_id', 'created_at', 'loaded_at', 'started_at', 'kind'],
  'bytes_gone_at',
];

function toReportFile(row: Record<string, unknown>): ReportFile {
  return {
    id: row.report_file_id as number,
    name: row.name as string,
    source: row.source as ReportFile['source'],
    digest: row.digest as string,
    sizeBytes: row.size_bytes as number,
    storedAs: row.stored_as as string,
    state: row.state as ReportState,
    options: row.options as ReadDecisions,
    kind: row.kind as ReportKind,
    rowsRead: row.rows_read as number,
    outcome: row.outcome as LoadOutcome | null,
    error: row.error as string | null,
    personId: row.person_id as number | null,
    createdAt: (row.created_at as Date).toISOString(),
    startedAt: (row.started_at as Date | null)?.toISOString() ?? null,
    loadedAt: (row.loaded_at as Date | null)?.toISOString() ?? null,
    isGone: row.bytes_gone_at !== null,
  };
}

export async function insertReportFile(
  db: Db,
  accountId: number,
  file: Pick<ReportFile, 'name' | 'source' | 'digest' | 'sizeBytes' | 'storedAs' | 'personId'>,
): Promise<ReportFile> {
  const [row] = await db('report_file')
    .insert({
      account_id: accountId,
      name: file.name,
      source: file.source,
      digest: file.digest,
      size_bytes: file.sizeBytes,
      stored_as: file.storedAs,
      person_id: file.personId,
      state: 'uploaded',
    })
    .returning(COLUMNS);
  return toReportFile(row);
}

export async function findReportFile(db: Db, accountId: number, id: number): Promise<ReportFile | undefined> {
  const row = await db('report_file').where({ account_id: accountId, report_file_id: id }).first(COLUMNS);
  return row && toReportFile(row);
}

/** The loaded report that has this content. A structure file is none: it tells how the account stands when it comes. */
export async function findLoadedByDigest(
  db: Db,
  accountId: number,
  digest: string,
): Promise<ReportFile | undefined> {
  const row = await db('report_file')
    .where({ account_id: accountId, digest, state: 'loaded' })
    .whereNot({ kind: 'structure' })
    .first(COLUMNS);
  return row && toReportFile(row);
}

export async function listReportFiles(db: Db, accountId: number, most = 50): Promise<ReportFile[]> {
  const rows = await db('report_file')
    .where({ account_id: accountId })
    .orderBy('report_file_id', 'desc')
    .limit(most)
    .select(COLUMNS);
  return rows.map(toReportFile);
}

/**
 * Notes of all files that are older than their account keeps them that their bytes are gone. What is being read or loaded is
 * left.
 * @returns the names under which they are stored
 */
export async function claimClearedBytes(db: Db): Promise<string[]> {
  const { rows } = await db.raw<{ rows: { storedAs: string }[] }>(
    `update report_file f set bytes_gone_at = clock_now() from account a
      where a.account_id = f.account_id and f.bytes_gone_at is null
        and f.created_at < clock_now() - a.file_days * interval '1 day'
        and f.state not in ('waiting', 'loading', 'taking back')
        and not exists (select from whole_reading w
                         where w.account_id = f.account_id and w.report_file_id = f.report_file_id and w.reading is null)
      returning f.stored_as as "storedAs"`,
  );
  return rows.map(({ storedAs }) => storedAs);
}

/**
 * Deletes files that a fetch brought and nobody loaded, because a report of the same content was loaded already.
 * @returns the names under which they are stored
 */
export async function deleteFetchedTwice(db: Db): Promise<string[]> {
  const { rows } = await db.raw<{ rows: { storedAs: string }[] }>(
    `delete from report_file f
      where f.source = 'platform' and f.state = 'uploaded' and f.bytes_gone_at is null
        and exists (select from report_file l
                     where l.account_id = f.account_id and l.digest = f.digest and l.state = 'loaded')
      returning f.stored_as as "storedAs"`,
  );
  return rows.map(({ storedAs }) => storedAs);
}

/** Moves a file to another state, but only from one of the given ones. @returns whether it was moved */
export async function moveReportFile(
  db: Db,
  accountId: number,
  id: number,
  from: readonly ReportState[],
  to: ReportState,
  fields: {
    options?: ReadDecisions;
    kind?: ReportKind;
    outcome?: LoadOutcome;
    error?: string | null;
    loaded?: boolean;
  } = {},
): Promise<boolean> {
  const moved = await db('report_file')
    .where({ account_id: accountId, report_file_id: id })
    .whereIn('state', from)
    .update({
      state: to,
      ...(fields.options && { options: JSON.stringify(fields.options) }),
      ...(fields.kind && { kind: fields.kind }),
      ...(to === 'loading' && { started_at: clockNow(db) }),
      ...(fields.outcome && { outcome: JSON.stringify(fields.outcome) }),
      ...(fields.error !== undefined && { error: fields.error }),
      ...(fields.loaded && { loaded_at: clockNow(db) }),
      ...(to === 'waiting' && { rows_read: 0, cancel_asked: false, error: null }),
    });
  return moved > 0;
}

/** Notes progress. @returns whether someone asked for the load to be cancelled */
export async function noteProgress(
  db: Db,
  accountId: number,
  id: number,
  rowsRead: number,
): Promise<boolean> {
  const [row] = await db('report_file')
    .where({ account_id: accountId, report_file_id: id })
    .update({ rows_read: rowsRead })
    .returning<{ cancel_asked: boolean }[]>('cancel_asked');
  return row?.cancel_asked ?? false;
}

export async function askToCancel(db: Db, accountId: number, id: number): Promise<void> {
  await db('report_file').where({ account_id: accountId, report_file_id: id }).update({ cancel_asked: true });
}

export async function replaceRejectedRows(
  db: Db,
  accountId: number,
  id: number,
  rows: readonly RejectedRow[],
): Promise<void> {
  await db('rejected_row').where({ account_id: accountId, report_file_id: id }).delete();
  await db.batchInsert(
    'rejected_row',
    rows.map(({ line, category, reason, raw }) => ({
      account_id: accountId,
      report_file_id: id,
      line,
      category,
      reason,
      raw,
    })),
    1_000,
  );
}

export async function listRejectedRows(db: Db, accountId: number, id: number): Promise<RejectedRow[]> {
  return db('rejected_row')
    .where({ account_id: accountId, report_file_id: id })
    .orderBy('line')
    .select<RejectedRow[]>('line', 'category', 'reason', 'raw');
}

/** The span of days that the facts reach over. */
export async function findDataDays(db: Db, accountId: number): Promise<{ from: string; to: string } | null> {
  const row = await db('term_day')
    .where({ account_id: accountId })
    .first(db.raw('min(day) as "from", max(day) as "to"'));
  return row?.to ? (row as { from: string; to: string }) : null;
}

/** The newest day of the first report of search terms that is loaded, YYYY-MM-DD; null where there is none. */
export async function findFirstReportEnd(db: Db, accountId: number): Promise<string | null> {
  const row = await db('report_file')
    .where({ account_id: accountId, kind: 'search terms', state: 'loaded' })
    .whereRaw(`outcome->'days'->>'to' is not null`)
    .orderBy('report_file_id')
    .first<{ day: string } | undefined>(db.raw(`outcome->'days'->>'to' as day`));
  return row?.day ?? null;
}
