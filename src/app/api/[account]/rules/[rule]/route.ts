import { parseId, serve } from '@/app/api/_handle/handle';
import { changeRule } from '@/server/use-cases/rules/keep-rules';
import { viewVersions } from '@/server/use-cases/rules/view-rules';

export const GET = serve('GET rules/[rule]', ({ deps, slug, params }) =>
  viewVersions(deps, slug, parseId(params.rule)),
);
export const PUT = serve('PUT rules/[rule]', ({ deps, slug, personId, params, body }) =>
  changeRule(deps, slug, personId, { ...body, ruleId: parseId(params.rule) }),
);
