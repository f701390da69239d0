import { parseId, serve } from '@/app/api/_handle/handle';
import { takePassBack } from '@/server/use-cases/mentions/mentions';

export const DELETE = serve('DELETE pass/holder/[mention]', ({ deps, slug, personId, params }) =>
  takePassBack(deps, slug, personId, parseId(params.mention)),
);
