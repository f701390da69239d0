import { parseId, serve } from '@/app/api/_handle/handle';

export const GET = serve('GET research/[sheet]/candidates', ({ ask, slug, params, query }) =>
  ask('viewCandidates', slug, parseId(params.sheet), query),
);
