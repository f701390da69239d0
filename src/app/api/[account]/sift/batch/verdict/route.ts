import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST sift/batch/verdict', ({ ask, slug, personId, body }) =>
  ask('setVerdicts', slug, personId, body),
);
