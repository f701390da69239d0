import { serve } from '@/app/api/_handle/handle';
import { setRuleStates } from '@/server/use-cases/rules/keep-rules';

export const PUT = serve('PUT rules/states', ({ deps, slug, personId, body }) =>
  setRuleStates(deps, slug, personId, body.rules),
);
