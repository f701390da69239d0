import { parseId, serve } from '@/app/api/_handle/handle';
import { viewCandidates } from '@/server/use-cases/research/candidates';

export const GET = serve('GET research/[sheet]/candidates', ({ deps, slug, params, query }) =>
  viewCandidates(deps, slug, parseId(params.sheet), query),
);
