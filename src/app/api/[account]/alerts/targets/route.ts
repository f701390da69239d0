import { serve } from '@/app/api/_handle/handle';
import { addTarget } from '@/server/use-cases/alerts/set-targets';

export const POST = serve('POST alerts/targets', ({ deps, slug, personId, body }) =>
  addTarget(deps, slug, personId, body),
);
