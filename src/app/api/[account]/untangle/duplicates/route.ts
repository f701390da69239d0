import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET untangle/duplicates', ({ ask, slug, query }) =>
  ask('viewDuplicates', slug, query),
);
