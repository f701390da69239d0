import { serve } from '@/app/api/_handle/handle';
import { noteExport, viewExports } from '@/server/use-cases/account/exports';

export const GET = serve('GET exports', ({ deps, slug }) => viewExports(deps, slug));
export const POST = serve('POST exports', ({ deps, slug, personId, body }) =>
  noteExport(deps, slug, personId, body.name),
);
