import { bodyOf, serve } from '@/app/api/_handle/handle';
import { readSmallFile } from '@/server/use-cases/small-file';

export const POST = serve(
  'POST untangle/duplicates/read-sheet',
  async ({ deps, ask, slug, request, url }) => {
    const file = await readSmallFile(deps, bodyOf(request, url));
    return ask('readDuplicateSheet', slug, file);
  },
);
