import { parseId, serve } from '@/app/api/_handle/handle';
import { forgetRecipe } from '@/server/use-cases/intake/recipes';

export const DELETE = serve('DELETE intake/recipes/[recipe]', ({ deps, slug, params }) =>
  forgetRecipe(deps, slug, parseId(params.recipe)),
);
