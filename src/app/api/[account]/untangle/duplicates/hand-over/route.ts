import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET untangle/duplicates/hand-over', ({ ask, slug, query }) =>
  ask('viewHandOver', slug, query),
);
