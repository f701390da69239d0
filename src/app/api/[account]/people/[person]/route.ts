import { parseId, serve } from '@/app/api/_handle/handle';
import { setRole } from '@/server/use-cases/account/people';

export const PUT = serve('PUT people/[person]', ({ deps, slug, personId, params, body }) =>
  setRole(deps, slug, personId, { person: parseId(params.person), role: body.role }),
);
