import { serve } from '@/app/api/_handle/handle';
import { giveVerdictsOfFindings } from '@/server/use-cases/rules/give-verdicts-of-findings';

export const PUT = serve('PUT rules/findings/verdicts', ({ deps, slug, personId, body }) =>
  giveVerdictsOfFindings(deps, slug, personId, body),
);
