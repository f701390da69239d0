import type { ListContent, ListDifference } from '@/core';
import type { Db } from '../../db/connection';

/** own: sent from here. What somebody else did on the platform waits until a person takes it over or undoes it. */
export type VersionState = 'own' | 'waits' | 'taken over' | 'undone';

export type NewVersion = {
  listId: string;
  listName: string;
  holds: ListContent;
  /** null: somebody else, on the platform */
  personId: number | null;
  what: 'made' | 'changed' | 'removed';
  difference: ListDifference;
  /** who changed it on the platform and on what day, where the platform says so */
  by?: string | null;
  on?: string | null;
};

export type ListVersion = Omit<NewVersion, 'personId'> & {
  id: number;
  at: string;
  /** a person here, or whom the platform names; null: somebody else */
  by: string | null;
  on: string | null;
  state: VersionState;
};

const versions = (db: Db, accountId: number) =>
  db('list_version')
    .leftJoin('person', 'person.person_id', 'list_version.person_id')
    .where({ 'list_version.account_id': accountId })
    .orderBy('list_version_id', 'desc')
    .select('list_version.*', 'person.name as by');

function toVersion(row: Record<string, unknown>): ListVersion {
  return {
    id: row.list_version_id as number,
    listId: String(row.list_id as number),
    listName: row.list_name as string,
    holds: row.holds as ListContent,
    at: (row.at as Date).toISOString(),
    by: (row.by ?? row.changed_by) as string | null,
    on: row.changed_on as string | null,
    what: row.what as ListVersion['what'],
    difference: row.difference as ListDifference,
    state: row.state as VersionState,
  };
}

/** Rows of one statement; each takes eight of the 65,535 values that it may have. */
const ROWS_AT_ONCE = 1_000;

export async function insertListVersions(
  db: Db,
  accountId: number,
  made: readonly NewVersion[],
): Promise<void> {
  const rows = made.map(({ listId, listName, holds, personId, what, difference, by, on }) => ({
    ...{ account_id: accountId, list_id: Number(listId), list_name: listName, holds, what },
    ...{ person_id: personId, difference: JSON.stringify(difference) },
    ...{ changed_by: by ?? null, changed_on: on ?? null },
    state: personId === null ? 'waits' : 'own',
  }));
  for (let at = 0; at < rows.length; at += ROWS_AT_ONCE)
    await db('list_version').insert(rows.slice(at, at + ROWS_AT_ONCE));
}

/** All versions of a list, the newest first. */
export async function listVersionsOf(db: Db, accountId: number, listId: string): Promise<ListVersion[]> {
  if (!/^\d+$/.test(listId)) return []; // it is still in the tray
  return (await versions(db, accountId).where({ list_id: Number(listId) })).map(toVersion);
}

/** What somebody else changed and nobody has looked at, the newest first. */
export async function listWaitingVersions(db: Db, accountId: number): Promise<ListVersion[]> {
  return (await versions(db, accountId).where({ state: 'waits' })).map(toVersion);
}

export async function findListVersion(
  db: Db,
  accountId: number,
  id: number,
): Promise<ListVersion | undefined> {
  const row = await versions(db, accountId).where({ list_version_id: id }).first();
  return row && toVersion(row);
}

/** @returns whether it still waited */
export async function settleListVersion(
  db: Db,
  accountId: number,
  id: number,
  state: 'taken over' | 'undone',
): Promise<boolean> {
  return (
    (await db('list_version')
      .where({ account_id: accountId, list_version_id: id, state: 'waits' })
      .update({ state })) > 0
  );
}

/** What was taken over waits again. @returns whether it had been taken over */
export async function setVersionWaiting(db: Db, accountId: number, id: number): Promise<boolean> {
  const where = { account_id: accountId, list_version_id: id, state: 'taken over' };
  return (await db('list_version').where(where).update({ state: 'waits' })) > 0;
}

/** Names of lists that are gone, by id, as they were called last. */
export async function loadNamesOfGoneLists(db: Db, accountId: number): Promise<Map<string, string>> {
  const rows: { list_id: number; list_name: string }[] = await db('list_version')
    .distinctOn('list_id')
    .where({ account_id: accountId, what: 'removed' })
    .orderBy(['list_id', { column: 'list_version_id', order: 'desc' }])
    .select('list_id', 'list_name');
  return new Map(rows.map((row) => [String(row.list_id), row.list_name]));
}

export type LastChange = { at: string; by: string | null; isKnown: true };

/** When each list was changed last, and by whom, by list id. */
export async function loadLastChanges(db: Db, accountId: number): Promise<Map<string, LastChange>> {
  const rows: { list_id: number; at: Date; by: string | null }[] = await db('list_version')
    .distinctOn('list_id')
    .leftJoin('person', 'person.person_id', 'list_version.person_id')
    .where({ account_id: accountId })
    .orderBy(['list_id', { column: 'list_version_id', order: 'desc' }])
    .select('list_id', 'at', 'person.name as by');
  return new Map(
    rows.map((row) => [
      String(row.list_id),
      { at: row.at.toISOString(), by: row.by, isKnown: true as const },
    ]),
  );
}
