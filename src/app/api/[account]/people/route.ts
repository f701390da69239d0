import { serve } from '@/app/api/_handle/handle';
import { addPerson } from '@/server/use-cases/account/people';

export const POST = serve('POST people', ({ deps, slug, personId, body }) =>
  addPerson(deps, slug, personId, body.name),
);
