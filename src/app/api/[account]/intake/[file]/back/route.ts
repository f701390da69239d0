import { parseId, serve } from '@/app/api/_handle/handle';
import { askToTakeBack } from '@/server/use-cases/intake/take-back-load';

export const POST = serve('POST intake/[file]/back', ({ deps, slug, params, personId }) =>
  askToTakeBack(deps, slug, parseId(params.file), personId),
);
