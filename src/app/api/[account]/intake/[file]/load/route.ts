import { parseId, serve } from '@/app/api/_handle/handle';
import { askForLoad, cancelLoad } from '@/server/use-cases/intake/take-in';

export const POST = serve('POST intake/[file]/load', ({ deps, slug, params, body }) =>
  askForLoad(deps, slug, parseId(params.file), body),
);
export const DELETE = serve('DELETE intake/[file]/load', ({ deps, slug, params }) =>
  cancelLoad(deps, slug, parseId(params.file)),
);
