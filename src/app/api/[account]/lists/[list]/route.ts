import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET lists/[list]', ({ ask, slug, params }) =>
  ask('viewEntries', slug, params.list ?? ''),
);
