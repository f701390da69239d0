import { parseId, serve } from '@/app/api/_handle/handle';

export const GET = serve('GET research/[sheet]/ideas', ({ ask, slug, params, query }) =>
  ask('viewHolding', slug, parseId(params.sheet), query),
);
