import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST untangle/look', ({ ask, slug, personId }) =>
  ask('lookAtKnots', slug, personId),
);
