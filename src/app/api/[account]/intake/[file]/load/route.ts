import { parseBody, parseId, writes } from '@/app/api/_handle/handle';
import { ReadDecisionsSchema } from '@/contracts/intake';
import { askForLoad, cancelLoad } from '@/server/use-cases/intake/take-in';

export const POST = writes(async ({ deps, slug, params, request }) => {
  await askForLoad(deps, slug, parseId(params.file), await parseBody(request, ReadDecisionsSchema));
});

export const DELETE = writes(({ deps, slug, params }) => cancelLoad(deps, slug, parseId(params.file)));
