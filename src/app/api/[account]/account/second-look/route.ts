import { serve } from '@/app/api/_handle/handle';
import { setLookRules } from '@/server/use-cases/account/look-rules';

export const PUT = serve('PUT account/second-look', ({ deps, slug, personId, body }) =>
  setLookRules(deps, slug, personId, body),
);
