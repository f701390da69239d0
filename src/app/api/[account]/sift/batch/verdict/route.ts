import { parseBody, writes } from '@/app/api/_handle/handle';
import { BatchVerdictSchema } from '@/contracts/decisions';

export const POST = writes(async ({ ask, slug, personId, request }) =>
  ask('setVerdicts', slug, personId, await parseBody(request, BatchVerdictSchema)),
);
