import type { ReadDecisions } from '@/core';
import type { Db } from '../../db/connection';

/** How files with certain columns are read, under a name. Roles and marks are kept by header. */
export type Recipe = { id: number; name: string; columns: string[]; decisions: RecipeDecisions };

/** Decisions that hold for another file with the same columns in another order. */
export type RecipeDecisions = Omit<ReadDecisions, 'roles' | 'decimalMarks' | 'headerLine' | 'period'> & {
  roles?: Record<string, string | null>;
  decimalMarks?: Record<string, '.' | ','>;
};

const COLUMNS = ['recipe_id as id', 'name', 'columns', 'decisions'];

export async function listRecipes(db: Db, accountId: number): Promise<Recipe[]> {
  return db('recipe').where({ account_id: accountId }).orderBy('name').select<Recipe[]>(COLUMNS);
}

/** @param columns headers in lower case, sorted */
export async function findRecipe(
  db: Db,
  accountId: number,
  columns: readonly string[],
): Promise<Recipe | undefined> {
  return db('recipe')
    .where({ account_id: accountId })
    .whereRaw('columns = ?::text[]', [columns as string[]])
    .first<Recipe | undefined>(COLUMNS);
}

/** Saves a recipe; one for the same columns, or of the same name, gives way. */
export async function saveRecipe(
  db: Db,
  accountId: number,
  recipe: Omit<Recipe, 'id'> & { personId: number },
): Promise<number> {
  await db('recipe')
    .where({ account_id: accountId })
    .whereRaw('(name = ? or columns = ?::text[])', [recipe.name, recipe.columns])
    .delete();
  const [row] = await db('recipe')
    .insert({
      account_id: accountId,
      name: recipe.name,
      columns: recipe.columns,
      decisions: JSON.stringify(recipe.decisions),
      person_id: recipe.personId,
    })
    .returning<{ recipe_id: number }[]>('recipe_id');
  return row!.recipe_id;
}

export async function deleteRecipe(db: Db, accountId: number, id: number): Promise<void> {
  await db('recipe').where({ account_id: accountId, recipe_id: id }).delete();
}
