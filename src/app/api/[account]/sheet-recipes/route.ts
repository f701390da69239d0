import { serve } from '@/app/api/_handle/handle';
import { keepSheetRecipe, viewSheetRecipes } from '@/server/use-cases/tray/hand-over/sheet-recipes';

export const GET = serve('GET sheet-recipes', ({ deps, slug }) => viewSheetRecipes(deps, slug));

export const POST = serve('POST sheet-recipes', ({ deps, slug, personId, body }) =>
  keepSheetRecipe(deps, slug, personId, body),
);
