import { parseId, serve } from '@/app/api/_handle/handle';

export const GET = serve('GET research/[sheet]/remainders', ({ ask, slug, params, query }) =>
  ask('viewRemainders', slug, parseId(params.sheet), query),
);
