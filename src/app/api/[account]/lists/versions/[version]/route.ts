import { parseId, serve } from '@/app/api/_handle/handle';
import { takeOverVersion } from '@/server/use-cases/lists/history';

export const POST = serve('POST lists/versions/[version]', ({ deps, slug, personId, params }) =>
  takeOverVersion(deps, slug, personId, parseId(params.version)),
);
