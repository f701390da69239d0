import { parseId, serve } from '@/app/api/_handle/handle';
import { takeSheetBack } from '@/server/use-cases/research/sheets';

export const POST = serve('POST research/[sheet]/back', async ({ deps, slug, personId, params }) => {
  await takeSheetBack(deps, slug, personId, parseId(params.sheet));
  return {};
});
