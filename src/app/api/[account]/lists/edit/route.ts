import { parseBody, writes } from '@/app/api/_handle/handle';
import { EditRequestSchema } from '@/contracts/lists';

export const POST = writes(async ({ ask, slug, personId, request }) => {
  const { edit, forcedBecause } = await parseBody(request, EditRequestSchema);
  return ask('draftEdit', slug, personId, edit, forcedBecause);
});
