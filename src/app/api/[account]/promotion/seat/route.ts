import { serve } from '@/app/api/_handle/handle';

export const PUT = serve('PUT promotion/seat', ({ ask, slug, personId, body }) =>
  ask('setSeat', slug, personId, body),
);
