import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET lists/cell', ({ ask, slug, query }) =>
  ask('weighCell', slug, query.list, query.campaign),
);
