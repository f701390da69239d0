import { serve } from '@/app/api/_handle/handle';
import { addPack, dropPack, viewPacks } from '@/server/use-cases/research/packs';

export const GET = serve('GET research/packs', ({ deps, slug }) => viewPacks(deps, slug));

export const POST = serve('POST research/packs', ({ deps, slug, personId, body }) =>
  addPack(deps, slug, personId, body.text),
);

export const DELETE = serve('DELETE research/packs', async ({ deps, slug, personId, body }) => {
  await dropPack(deps, slug, personId, body.pack);
  return {};
});
