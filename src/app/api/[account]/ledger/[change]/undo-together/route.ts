import { parseId, serve } from '@/app/api/_handle/handle';

export const POST = serve('POST ledger/[change]/undo-together', ({ ask, slug, personId, params, body }) =>
  ask('undoTogether', slug, personId, parseId(params.change), body.what),
);
