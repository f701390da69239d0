import { parseId, serve } from '@/app/api/_handle/handle';

export const GET = serve('GET ledger/saved/[change]', ({ ask, slug, params }) =>
  ask('viewSavedOfChange', slug, parseId(params.change)),
);
