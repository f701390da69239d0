import { parseId, serve } from '@/app/api/_handle/handle';

export const POST = serve('POST tray/sent/[set]/results', ({ ask, slug, personId, params, body }) =>
  ask('storeResults', slug, personId, parseId(params.set), body.results),
);
