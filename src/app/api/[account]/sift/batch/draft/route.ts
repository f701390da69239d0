import { parseBody, writes } from '@/app/api/_handle/handle';
import { BatchSchema } from '@/contracts/decisions';

export const POST = writes(async ({ ask, slug, personId, request }) => ({
  outcomes: await ask('draftBatch', slug, personId, await parseBody(request, BatchSchema)),
}));
