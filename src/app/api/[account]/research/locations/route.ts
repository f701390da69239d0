import { serve } from '@/app/api/_handle/handle';
import { sayLocation } from '@/server/use-cases/research/locations';

export const POST = serve('POST research/locations', ({ deps, slug, personId, body }) =>
  sayLocation(deps, slug, personId, body),
);
