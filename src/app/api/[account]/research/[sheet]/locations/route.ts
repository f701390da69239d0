import { parseId, serve } from '@/app/api/_handle/handle';
import { viewLocations } from '@/server/use-cases/research/locations';

export const GET = serve('GET research/[sheet]/locations', ({ deps, slug, params }) =>
  viewLocations(deps, slug, parseId(params.sheet)),
);
