import { parseBody, parseId, writes } from '@/app/api/_handle/handle';
import { RuleExceptionSchema } from '@/contracts/lists';
import { dropHangRule } from '@/server/use-cases/lists/rule-hangings';

/** Leaves a campaign out of a rule, or lets it be under it again. */
export const POST = writes(async ({ ask, slug, personId, params, request }) =>
  ask('exceptFromRule', slug, personId, parseId(params.rule), await parseBody(request, RuleExceptionSchema)),
);
export const DELETE = writes(({ deps, slug, personId, params }) =>
  dropHangRule(deps, slug, personId, parseId(params.rule)),
);
