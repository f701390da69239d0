import { serve } from '@/app/api/_handle/handle';
import { setOwnTargets } from '@/server/use-cases/account/own-targets';

export const PUT = serve('PUT account/targets', ({ deps, slug, personId, body }) =>
  setOwnTargets(deps, slug, personId, body),
);
