import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST promotion/seats', ({ ask, slug, personId, body }) =>
  ask('makeSeats', slug, personId, body),
);
