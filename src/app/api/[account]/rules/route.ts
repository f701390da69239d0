import { serve } from '@/app/api/_handle/handle';
import { keepRule } from '@/server/use-cases/rules/keep-rules';

export const GET = serve('GET rules', ({ ask, slug }) => ask('viewRules', slug));
export const POST = serve('POST rules', ({ deps, slug, personId, body }) =>
  keepRule(deps, slug, personId, body),
);
