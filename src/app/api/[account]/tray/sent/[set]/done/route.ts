import { parseId, serve } from '@/app/api/_handle/handle';

export const POST = serve('POST tray/sent/[set]/done', ({ ask, slug, personId, params }) =>
  ask('sayDone', slug, personId, parseId(params.set)),
);
export const DELETE = serve('DELETE tray/sent/[set]/done', ({ ask, slug, personId, params }) =>
  ask('unsayDone', slug, personId, parseId(params.set)),
);
