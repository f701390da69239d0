import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET untangle/overlaps/seatings', ({ ask, slug, query }) =>
  ask('viewSeatings', slug, query),
);
