import { parseBody, parseId, writes } from '@/app/api/_handle/handle';
import { ReadOptionsSchema } from '@/contracts/intake';
import { readUpload } from '@/server/use-cases/take-in';

export const POST = writes(async ({ deps, slug, params, request }) =>
  readUpload(deps, slug, parseId(params.file), await parseBody(request, ReadOptionsSchema)),
);
