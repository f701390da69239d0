import { serve } from '@/app/api/_handle/handle';
import { keepRecipe } from '@/server/use-cases/intake/recipes';

export const POST = serve('POST intake/recipes', async ({ deps, slug, personId, body }) => ({
  id: await keepRecipe(deps, slug, personId, body),
}));
