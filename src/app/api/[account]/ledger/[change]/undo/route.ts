import { parseId, serve } from '@/app/api/_handle/handle';

export const POST = serve('POST ledger/[change]/undo', ({ ask, slug, personId, params }) =>
  ask('undoSent', slug, personId, parseId(params.change)),
);
