import { bodyOf, parseId, serve } from '@/app/api/_handle/handle';
import { readSmallFile } from '@/server/use-cases/small-file';

export const POST = serve(
  'POST tray/sent/[set]/read-results',
  async ({ deps, ask, slug, params, query, request, url }) => {
    const file = await readSmallFile(deps, bodyOf(request, url));
    return ask('readResultSheet', slug, parseId(params.set), file, query);
  },
);
