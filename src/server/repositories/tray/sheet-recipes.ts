import type { SheetRecipe } from '@/core';
import type { Db } from '../../db/connection';

export type StoredSheetRecipe = SheetRecipe & { id: number };

/** The recipes of an account, by name. */
export async function listSheetRecipes(db: Db, accountId: number): Promise<StoredSheetRecipe[]> {
  const rows = await db('sheet_recipe').where({ account_id: accountId }).orderBy('name');
  return rows.map((row) => ({ ...row.body, name: row.name, id: row.sheet_recipe_id }));
}

/** Saves a recipe; one of the same name gives way. @returns its id */
export async function saveSheetRecipe(
  db: Db,
  accountId: number,
  personId: number,
  { name, ...body }: SheetRecipe,
): Promise<number> {
  const [row] = await db('sheet_recipe')
    .insert({ account_id: accountId, name, body: JSON.stringify(body), person_id: personId })
    .onConflict(['account_id', 'name'])
    .merge(['body', 'person_id'])
    .returning<{ sheet_recipe_id: number }[]>('sheet_recipe_id');
  return row!.sheet_recipe_id;
}

/** @returns what was deleted; undefined where nothing was */
export async function deleteSheetRecipe(
  db: Db,
  accountId: number,
  id: number,
): Promise<SheetRecipe | undefined> {
  const [row] = await db('sheet_recipe')
    .where({ account_id: accountId, sheet_recipe_id: id })
    .delete()
    .returning<{ name: string; body: Omit<SheetRecipe, 'name'> }[]>(['name', 'body']);
  return row && { ...row.body, name: row.name };
}
