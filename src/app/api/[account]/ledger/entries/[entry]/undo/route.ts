import { parseId, serve } from '@/app/api/_handle/handle';

export const POST = serve('POST ledger/entries/[entry]/undo', ({ ask, slug, personId, params }) =>
  ask('undoEntry', slug, personId, parseId(params.entry)),
);
