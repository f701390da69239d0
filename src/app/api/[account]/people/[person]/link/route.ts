import { parseId, serve } from '@/app/api/_handle/handle';
import { makeLink } from '@/server/use-cases/sign-in/links';

export const POST = serve('POST people/[person]/link', ({ deps, slug, personId, params }) =>
  makeLink(deps, slug, personId, parseId(params.person)),
);
