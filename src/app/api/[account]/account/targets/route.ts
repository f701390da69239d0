import { parseBody, writes } from '@/app/api/_handle/handle';
import { TargetsSchema } from '@/contracts/account';
import { setOwnTargets } from '@/server/use-cases/account/own-targets';

export const PUT = writes(async ({ deps, slug, personId, request }) =>
  setOwnTargets(deps, slug, personId, await parseBody(request, TargetsSchema)),
);
