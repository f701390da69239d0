import { serve } from '@/app/api/_handle/handle';
import { takeKnotBack } from '@/server/use-cases/untangle/knots/leave-knot';

export const POST = serve('POST untangle/left', ({ ask, slug, personId, body }) =>
  ask('leaveKnot', slug, personId, body),
);
export const DELETE = serve('DELETE untangle/left', ({ deps, slug, personId, body }) =>
  takeKnotBack(deps, slug, personId, body),
);
