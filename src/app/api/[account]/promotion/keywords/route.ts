import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET promotion/keywords', ({ ask, slug, query }) =>
  ask('viewOwnKeywords', slug, query),
);
