import { parseBody, writes } from '@/app/api/_handle/handle';
import { RecipeSchema } from '@/contracts/intake';
import { keepRecipe } from '@/server/use-cases/intake/recipes';

export const POST = writes(async ({ deps, slug, personId, request }) => ({
  id: await keepRecipe(deps, slug, personId, await parseBody(request, RecipeSchema)),
}));
