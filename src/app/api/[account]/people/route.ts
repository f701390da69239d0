import { serve } from '@/app/api/_handle/handle';
import { addMember } from '@/server/use-cases/account/people';

export const POST = serve('POST people', ({ deps, slug, personId, body }) =>
  addMember(deps, slug, personId, body),
);
