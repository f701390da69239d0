import { parseId, serve } from '@/app/api/_handle/handle';
import { readUpload } from '@/server/use-cases/intake/read-upload';

export const POST = serve('POST intake/[file]/reading', ({ deps, slug, params, body }) =>
  readUpload(deps, slug, parseId(params.file), body),
);
