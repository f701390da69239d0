import { parseId, serve } from '@/app/api/_handle/handle';

export const POST = serve('POST tray/sent/[set]/back', ({ ask, slug, personId, params, body }) =>
  ask('takeBackToDraft', slug, personId, parseId(params.set), body.changeIds),
);
