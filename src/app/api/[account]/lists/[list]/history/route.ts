import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET lists/[list]/history', ({ ask, slug, params }) =>
  ask('viewHistory', slug, params.list ?? ''),
);
