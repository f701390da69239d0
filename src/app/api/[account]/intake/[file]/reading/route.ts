import * as v from 'valibot';
import { parseBody, parseId, reads } from '@/app/api/_handle/handle';
import { ReadDecisionsSchema } from '@/contracts/intake';
import { readUpload } from '@/server/use-cases/intake/read-upload';

/** null asks for the reading that Gate Post finds by itself, or by a recipe. */
export const POST = reads(async ({ deps, slug, params, request }) =>
  readUpload(deps, slug, parseId(params.file), await parseBody(request, v.nullable(ReadDecisionsSchema))),
);
