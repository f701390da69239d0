import { parseId, serve } from '@/app/api/_handle/handle';

export const POST = serve('POST research/[sheet]/gather', ({ ask, slug, personId, params, body }) =>
  ask('gather', slug, personId, parseId(params.sheet), body),
);
