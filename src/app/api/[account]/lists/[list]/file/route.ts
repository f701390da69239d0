import { saved, serve } from '@/app/api/_handle/handle';

export const GET = serve('GET lists/[list]/file', async ({ ask, slug, params, query }) =>
  saved(await ask('writeListFile', slug, params.list ?? '', query.as)),
);
