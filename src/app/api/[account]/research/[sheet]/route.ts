import { parseId, serve } from '@/app/api/_handle/handle';
import { changeSheet, dropSheet } from '@/server/use-cases/research/sheets';

export const GET = serve('GET research/[sheet]', ({ ask, slug, params }) =>
  ask('viewSheet', slug, parseId(params.sheet)),
);
export const PATCH = serve('PATCH research/[sheet]', ({ deps, slug, params, body }) =>
  changeSheet(deps, slug, parseId(params.sheet), body),
);
export const DELETE = serve('DELETE research/[sheet]', ({ deps, slug, personId, params }) =>
  dropSheet(deps, slug, personId, parseId(params.sheet)),
);
