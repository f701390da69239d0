import { clockNow, type Db } from '../../db/connection';

export type SavedView = { name: string; search: string; by: string; at: string };

const views = (db: Db, accountId: number) =>
  db('saved_view')
    .join('person', 'person.person_id', 'saved_view.person_id')
    .where({ account_id: accountId })
    .select('saved_view.name as name', 'search', 'person.name as by', 'saved_at');

type Row = { name: string; search: string; by: string; saved_at: Date };
const toView = ({ name, search, by, saved_at }: Row): SavedView => ({
  ...{ name, search, by, at: saved_at.toISOString() },
});

export async function listSavedViews(db: Db, accountId: number): Promise<SavedView[]> {
  return ((await views(db, accountId).orderBy('saved_view.name')) as Row[]).map(toView);
}

export async function findSavedView(db: Db, accountId: number, name: string): Promise<SavedView | undefined> {
  const row = (await views(db, accountId).where('saved_view.name', name).first()) as Row | undefined;
  return row && toView(row);
}

export async function putSavedView(
  db: Db,
  accountId: number,
  view: { name: string; search: string; personId: number },
): Promise<void> {
  await db('saved_view')
    .insert({ account_id: accountId, name: view.name, search: view.search, person_id: view.personId })
    .onConflict(['account_id', 'name'])
    .merge({ search: view.search, person_id: view.personId, saved_at: clockNow(db) });
}

export async function deleteSavedView(db: Db, accountId: number, name: string): Promise<boolean> {
  return (await db('saved_view').where({ account_id: accountId, name }).delete()) > 0;
}
