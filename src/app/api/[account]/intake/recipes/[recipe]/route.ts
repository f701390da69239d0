import { parseId, writes } from '@/app/api/_handle/handle';
import { forgetRecipe } from '@/server/use-cases/intake/recipes';

export const DELETE = writes(({ deps, slug, params }) => forgetRecipe(deps, slug, parseId(params.recipe)));
