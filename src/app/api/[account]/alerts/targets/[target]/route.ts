import { parseId, serve } from '@/app/api/_handle/handle';
import { changeTarget, removeTarget } from '@/server/use-cases/alerts/set-targets';

export const PUT = serve('PUT alerts/targets/[target]', ({ deps, slug, personId, params, body }) =>
  changeTarget(deps, slug, personId, parseId(params.target), body),
);
export const DELETE = serve('DELETE alerts/targets/[target]', ({ deps, slug, personId, params, body }) =>
  removeTarget(deps, slug, personId, { id: parseId(params.target), isRemoved: body.isRemoved }),
);
