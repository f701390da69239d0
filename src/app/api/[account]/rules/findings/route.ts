import { serve } from '@/app/api/_handle/handle';
import { decideFindings } from '@/server/use-cases/rules/decide-findings';

export const GET = serve('GET rules/findings', ({ ask, slug, query }) => ask('viewFindings', slug, query));
export const PUT = serve('PUT rules/findings', ({ deps, slug, personId, body }) =>
  decideFindings(deps, slug, personId, body),
);
