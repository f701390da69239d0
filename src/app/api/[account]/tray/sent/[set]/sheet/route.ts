import { parseId, saved, serve } from '@/app/api/_handle/handle';

export const GET = serve('GET tray/sent/[set]/sheet', async ({ ask, slug, params, query }) =>
  saved(await ask('sheetOfSet', slug, parseId(params.set), query.as, query.recipe)),
);
