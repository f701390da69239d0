import { parseId, serve } from '@/app/api/_handle/handle';

export const POST = serve('POST research/[sheet]/weigh', ({ ask, slug, params, body }) =>
  ask('weighNegatives', slug, parseId(params.sheet), body),
);
