import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET untangle/smaller/set', ({ ask, slug, query }) =>
  ask('viewSmallerSet', slug, query),
);
