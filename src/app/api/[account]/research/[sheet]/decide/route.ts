import { parseId, serve } from '@/app/api/_handle/handle';
import { decideIdeas } from '@/server/use-cases/research/decide-ideas';

export const POST = serve('POST research/[sheet]/decide', ({ deps, slug, personId, params, body }) =>
  decideIdeas(deps, slug, personId, parseId(params.sheet), body),
);
