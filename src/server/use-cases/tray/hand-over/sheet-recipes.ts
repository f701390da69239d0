import { faultOfRecipe, SHEET_COLUMNS, USUAL_RECIPE, type SheetRecipe } from '@/core';
import type { SheetRecipes } from '@/contracts/sheets';
import { appendLedger } from '../../../repositories/ledger';
import {
  deleteSheetRecipe,
  listSheetRecipes,
  saveSheetRecipe,
} from '../../../repositories/tray/sheet-recipes';
import { Refusal, type Deps } from '../../deps';
import { requireAccount } from '../../open-workbench';
import { SHEET_TASKS } from '../kinds';

/** The recipes of an account, and the words that stand in the columns that hold one of a few. */
export async function viewSheetRecipes(deps: Deps, slug: string): Promise<SheetRecipes> {
  const { id } = await requireAccount(deps, slug);
  const words = {
    ...{ Do: [...SHEET_TASKS], Status: ['live', 'paused', 'removed'] },
    ...{ Place: ['account', 'campaign', 'ad group', 'list'], 'Match type': ['exact', 'phrase', 'broad'] },
  };
  return { recipes: (await listSheetRecipes(deps.db, id)).map(withWholeColumns), words };
}

/** A recipe as it is sent: its columns are those that sheets still have. */
const withWholeColumns = <R extends SheetRecipe>(recipe: R) => ({
  ...recipe,
  columns: recipe.columns.filter(({ column }) => SHEET_COLUMNS.includes(column)),
});

/**
 * Keeps a recipe under its name, in place of one of the same name.
 * @throws Refusal when a sheet by it could not be read back
 */
export async function keepSheetRecipe(
  deps: Deps,
  slug: string,
  personId: number,
  recipe: SheetRecipe,
): Promise<{ id: number }> {
  const account = await requireAccount(deps, slug);
  const fault = faultOfRecipe(recipe);
  if (fault !== undefined) throw new Refusal(`${fault} Nothing was stored.`);
  if (recipe.name.toLowerCase() === USUAL_RECIPE.name)
    throw new Refusal('The usual sheet stays as it is. Choose another name.');
  return deps.db.transaction(async (trx) => {
    const id = await saveSheetRecipe(trx, account.id, personId, recipe);
    await appendLedger(trx, account.id, {
      ...{ actor: { person: personId }, about: 'setting' },
      what: `Kept the columns of sheets as “${recipe.name}”`,
    });
    return { id };
  });
}

/** Forgets a recipe. @returns it, so that it can be kept again @throws Refusal when it is not there */
export async function forgetSheetRecipe(
  deps: Deps,
  slug: string,
  personId: number,
  id: number,
): Promise<{ recipe: SheetRecipe }> {
  const account = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const recipe = await deleteSheetRecipe(trx, account.id, id);
    if (!recipe) throw new Refusal('This recipe is not there any more.', 404);
    await appendLedger(trx, account.id, {
      ...{ actor: { person: personId }, about: 'setting' },
      what: `Forgot the columns of sheets “${recipe.name}”`,
    });
    return { recipe };
  });
}

/** The recipe with an id, or the usual one. @throws Refusal when it is not there */
export async function requireSheetRecipe(deps: Deps, accountId: number, id?: number): Promise<SheetRecipe> {
  if (id === undefined) return USUAL_RECIPE;
  const found = (await listSheetRecipes(deps.db, accountId)).find((recipe) => recipe.id === id);
  if (!found) throw new Refusal('This recipe is not there any more. Choose another one.', 404);
  return found;
}
