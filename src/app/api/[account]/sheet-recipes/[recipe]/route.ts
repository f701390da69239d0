import { parseId, serve } from '@/app/api/_handle/handle';
import { forgetSheetRecipe } from '@/server/use-cases/tray/hand-over/sheet-recipes';

export const DELETE = serve('DELETE sheet-recipes/[recipe]', ({ deps, slug, personId, params }) =>
  forgetSheetRecipe(deps, slug, personId, parseId(params.recipe)),
);
