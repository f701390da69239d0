import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST standing/back', ({ ask, slug, personId, body }) =>
  ask('putStandingBack', slug, personId, body),
);
