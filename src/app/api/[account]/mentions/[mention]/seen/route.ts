import { parseId, serve } from '@/app/api/_handle/handle';
import { seeMention } from '@/server/use-cases/mentions/mentions';

export const POST = serve('POST mentions/[mention]/seen', ({ deps, slug, personId, params, body }) =>
  seeMention(deps, slug, personId, { id: parseId(params.mention), ...body }),
);
