import { parseBody, writes } from '@/app/api/_handle/handle';
import { NewHangRuleSchema } from '@/contracts/lists';

export const POST = writes(async ({ ask, slug, personId, request }) => ({
  id: await ask('keepHangRule', slug, personId, await parseBody(request, NewHangRuleSchema)),
}));
