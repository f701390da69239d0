import { parseId, serve } from '@/app/api/_handle/handle';
import { retirePerson } from '@/server/use-cases/account/people';

export const PUT = serve('PUT people/[person]', ({ deps, slug, personId, params, body }) =>
  retirePerson(deps, slug, personId, { person: parseId(params.person), isRetired: body.isRetired }),
);
