import { serve } from '@/app/api/_handle/handle';
import { setRuleSets } from '@/server/use-cases/rules/rule-sets';

export const PUT = serve('PUT rules/sets', ({ deps, slug, personId, body }) =>
  setRuleSets(deps, slug, personId, body.sets),
);
