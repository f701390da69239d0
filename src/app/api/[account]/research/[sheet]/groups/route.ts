import { parseId, serve } from '@/app/api/_handle/handle';
import { moveIdeas } from '@/server/use-cases/research/groups';

export const GET = serve('GET research/[sheet]/groups', ({ ask, slug, params, query }) =>
  ask('viewGroups', slug, parseId(params.sheet), query),
);

export const POST = serve('POST research/[sheet]/groups', ({ deps, slug, params, body }) =>
  moveIdeas(deps, slug, parseId(params.sheet), body.moves),
);
