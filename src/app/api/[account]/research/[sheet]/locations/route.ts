import { parseId, serve } from '@/app/api/_handle/handle';

export const GET = serve('GET research/[sheet]/locations', ({ ask, slug, params }) =>
  ask('viewLocations', slug, parseId(params.sheet)),
);
