import type { ColumnRole, ReadDecisions } from '@/core';
import {
  deleteRecipe,
  listRecipes,
  saveRecipe,
  type Recipe,
  type RecipeDecisions,
} from '../../repositories/intake/recipes';
import type { Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/** What files with the same columns have in common, whatever their order. */
export function columnsKey(headers: readonly string[]): string[] {
  return headers.map((header) => header.trim().toLowerCase()).sort();
}

/** A recipe's decisions for a file whose columns stand in this order. */
export function decisionsFor(
  { decisions }: Pick<Recipe, 'decisions'>,
  headers: readonly string[],
): ReadDecisions {
  const { roles = {}, decimalMarks = {}, ...others } = decisions;
  const byIndex = <Value>(of: Record<string, Value>): Record<number, Value> =>
    Object.fromEntries(
      headers.flatMap((header, index) => {
        const key = header.trim().toLowerCase();
        return key in of ? [[index, of[key] as Value]] : [];
      }),
    );
  return {
    ...others,
    ...(Object.keys(roles).length > 0 && { roles: byIndex(roles) as Record<number, ColumnRole | null> }),
    ...(Object.keys(decimalMarks).length > 0 && { decimalMarks: byIndex(decimalMarks) }),
  };
}

/** The decisions that hold for all files with the same columns; decisions about this file alone are left out. */
export function toRecipe(decisions: ReadDecisions, headers: readonly string[]): RecipeDecisions {
  const byHeader = <Value>(of: Readonly<Record<number, Value>>): Record<string, Value> =>
    Object.fromEntries(
      Object.entries(of).map(([index, value]) => [
        (headers[Number(index)] ?? '').trim().toLowerCase(),
        value,
      ]),
    );
  const { kind, encoding, separator, dayOrder, decimalMark, roles, decimalMarks } = decisions;
  return {
    ...{ kind, encoding, separator, dayOrder, decimalMark },
    ...(roles && { roles: byHeader(roles) }),
    ...(decimalMarks && { decimalMarks: byHeader(decimalMarks) }),
  };
}

/** Saves how a file was read as a recipe. The next file with the same columns is read by the recipe. */
export async function keepRecipe(
  deps: Deps,
  slug: string,
  personId: number,
  recipe: { name: string; headers: readonly string[]; decisions: ReadDecisions },
): Promise<number> {
  const account = await requireAccount(deps, slug);
  return deps.db.transaction((trx) =>
    saveRecipe(trx, account.id, {
      name: recipe.name,
      columns: columnsKey(recipe.headers),
      decisions: toRecipe(recipe.decisions, recipe.headers),
      personId,
    }),
  );
}

export async function forgetRecipe(deps: Deps, slug: string, id: number): Promise<void> {
  const account = await requireAccount(deps, slug);
  await deleteRecipe(deps.db, account.id, id);
}

export async function recipesOf(deps: Deps, accountId: number) {
  const recipes = await listRecipes(deps.db, accountId);
  return recipes.map(({ id, name, columns }) => ({ id, name, columns: columns.length }));
}
