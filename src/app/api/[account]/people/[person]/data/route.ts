import { parseId, saved, serve } from '@/app/api/_handle/handle';
import { saveMemberData } from '@/server/use-cases/account/data-of-people';

export const GET = serve('GET people/[person]/data', async ({ deps, slug, personId, params }) =>
  saved(await saveMemberData(deps, slug, personId, parseId(params.person))),
);
