import { parseId, serve } from '@/app/api/_handle/handle';
import { forgetPerson } from '@/server/use-cases/account/data-of-people';

export const POST = serve('POST people/[person]/forget', ({ deps, slug, personId, params, body }) =>
  forgetPerson(deps, slug, personId, { of: parseId(params.person), name: body.name }),
);
