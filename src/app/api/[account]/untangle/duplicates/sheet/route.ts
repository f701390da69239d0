import { saved, serve } from '@/app/api/_handle/handle';

export const GET = serve('GET untangle/duplicates/sheet', async ({ ask, slug, query: { as, ...query } }) =>
  saved(await ask('writeDuplicateSheet', slug, as, query)),
);
