import { saved, serve } from '@/app/api/_handle/handle';

export const GET = serve('GET promotion/sheet', async ({ ask, slug, query: { as, ...query } }) =>
  saved(await ask('writePromotionSheet', slug, as, query)),
);
