import { parseId, serve } from '@/app/api/_handle/handle';
import { dropHangRule } from '@/server/use-cases/lists/rule-hangings';

export const POST = serve('POST lists/rules/[rule]', ({ ask, slug, personId, params, body }) =>
  ask('exceptFromRule', slug, personId, parseId(params.rule), body),
);
export const DELETE = serve('DELETE lists/rules/[rule]', ({ deps, slug, personId, params }) =>
  dropHangRule(deps, slug, personId, parseId(params.rule)),
);
