import { parseBody, writes } from '@/app/api/_handle/handle';
import { OutsideSchema } from '@/contracts/lists';

export const POST = writes(async ({ ask, slug, personId, request }) => {
  const { ids, forcedBecause } = await parseBody(request, OutsideSchema);
  return { outcomes: await ask('undoOutside', slug, personId, ids, forcedBecause) };
});
