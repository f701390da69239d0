import { saved, serve } from '@/app/api/_handle/handle';

export const GET = serve('GET today/for-client/sheet', async ({ ask, slug, query }) =>
  saved(await ask('forClientSheet', slug, query.days)),
);
