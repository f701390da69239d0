import { saved, serve } from '@/app/api/_handle/handle';
import { packFile } from '@/server/use-cases/research/packs';

export const GET = serve('GET research/packs/file', async ({ deps, slug, query }) =>
  saved(await packFile(deps, slug, query.pack)),
);
