import { parseId, serve } from '@/app/api/_handle/handle';
import { takeSourceOut } from '@/server/use-cases/research/sheets';

export const PATCH = serve(
  'PATCH research/[sheet]/sources',
  async ({ deps, slug, personId, params, body }) => {
    await takeSourceOut(deps, slug, personId, parseId(params.sheet), body);
    return {};
  },
);
