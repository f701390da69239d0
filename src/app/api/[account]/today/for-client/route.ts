import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET today/for-client', ({ ask, slug, query }) =>
  ask('viewForClient', slug, query.days),
);
