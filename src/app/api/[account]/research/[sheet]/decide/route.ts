import { parseId, serve } from '@/app/api/_handle/handle';

export const POST = serve('POST research/[sheet]/decide', ({ ask, slug, personId, params, body }) =>
  ask('decideIdeas', slug, personId, parseId(params.sheet), body),
);
