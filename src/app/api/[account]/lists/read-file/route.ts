import { bodyOf, serve } from '@/app/api/_handle/handle';
import { readListFile } from '@/server/use-cases/lists/list-files';

export const POST = serve('POST lists/read-file', ({ deps, request, url }) =>
  readListFile(deps, bodyOf(request, url)),
);
