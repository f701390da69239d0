import { serve } from '@/app/api/_handle/handle';
import { makeSheet, viewSheets } from '@/server/use-cases/research/sheets';

export const GET = serve('GET research', ({ deps, slug }) => viewSheets(deps, slug));
export const POST = serve('POST research', ({ deps, slug, personId, body }) =>
  makeSheet(deps, slug, personId, body.name),
);
