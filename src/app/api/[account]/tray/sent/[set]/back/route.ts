import { parseBody, parseId, writes } from '@/app/api/_handle/handle';
import { BackRequestSchema } from '@/contracts/tray';

export const POST = writes(async ({ ask, slug, personId, params, request }) => {
  const { changeIds } = await parseBody(request, BackRequestSchema);
  return ask('takeBackToDraft', slug, personId, parseId(params.set), changeIds);
});
